import { createBrowserRouter, Navigate } from "react-router";
import { Bench } from "./bench/Bench";
import { CheckPage } from "./check/CheckPage";
import { DesignList } from "./designs/DesignList";
import { SignedIn } from "./session/SignedIn";
import { SignInPage } from "./session/SignInPage";
import { PartsStep } from "./steps/parts/PartsStep";
import { ShapeStep } from "./steps/shape/ShapeStep";
import { SizesStep } from "./steps/sizes/SizesStep";
import { SwatchStep } from "./steps/swatch/SwatchStep";
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
          { path: "swatch", element: <SwatchStep /> },
          { path: "sizes", element: <SizesStep /> },
          { path: "shape", element: <ShapeStep /> },
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
