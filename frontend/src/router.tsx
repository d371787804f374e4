import { createBrowserRouter, Navigate } from "react-router";
import { Bench } from "./bench/Bench";
import { ByFields } from "./bench/ByFields";
import { CheckPage } from "./check/CheckPage";
import { DesignList } from "./designs/DesignList";
import { SignedIn } from "./session/SignedIn";
import { SignInPage } from "./session/SignInPage";
import { PartsStep } from "./steps/parts/PartsStep";
import { ShapeStep } from "./steps/shape/ShapeStep";
import { TextShape } from "./steps/shape/TextShape";
import { SizesStep } from "./steps/sizes/SizesStep";
import { TextSizes } from "./steps/sizes/TextSizes";
import { SwatchStep } from "./steps/swatch/SwatchStep";
import { TextSwatch } from "./steps/swatch/TextSwatch";
import { TestersStep } from "./steps/testers/TestersStep";
import { WordsStep } from "./steps/words/WordsStep";
import { YarnStep } from "./steps/yarn/YarnStep";
import { TesterPage } from "./tester/TesterPage";
import { NothingHere } from "./ui/NothingHere";
import { RouteTrouble } from "./ui/RouteTrouble";

export const router = createBrowserRouter([
  { path: "/sign-in", element: <SignInPage />, errorElement: <RouteTrouble /> },
  { path: "/t/:token", element: <TesterPage />, errorElement: <RouteTrouble /> },
  {
    element: <SignedIn />,
    errorElement: <RouteTrouble />,
    children: [
      { path: "/", element: <DesignList /> },
      { path: "/check", element: <CheckPage /> },
      {
        path: "/designs/:id",
        element: <Bench />,
        children: [
          { index: true, element: <Navigate to="swatch" replace /> },
          { path: "swatch", element: <ByFields fields={<SwatchStep />} text={<TextSwatch />} /> },
          { path: "sizes", element: <ByFields fields={<SizesStep />} text={<TextSizes />} /> },
          { path: "shape", element: <ByFields fields={<ShapeStep />} text={<TextShape />} /> },
          { path: "yarn", element: <YarnStep /> },
          { path: "words", element: <WordsStep /> },
          { path: "testers", element: <TestersStep /> },
          { path: "parts", element: <PartsStep /> },
        ],
      },
    ],
  },
  { path: "*", element: <NothingHere /> },
]);
