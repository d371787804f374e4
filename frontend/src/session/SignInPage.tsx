import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { Navigate, useLocation, useNavigate } from "react-router";
import { ApiError, client, unwrap } from "../api/client";
import { Trouble } from "../ui/Trouble";
import { Example } from "./Example";
import { become, useMe } from "./useMe";

function faultOf(error: unknown, field: string): string | undefined {
  if (!(error instanceof ApiError)) return undefined;
  return error.problem.faults.find((fault) => fault.path === `$.${field}`)?.message;
}

interface FieldProps {
  name: string;
  label: string;
  type: string;
  autoComplete: string;
  error: unknown;
}

function TextField({ name, label, type, autoComplete, error }: FieldProps) {
  const fault = faultOf(error, name);
  return (
    <label className="block">
      <span className="text-sm">{label}</span>
      <input
        className="field mt-0.5"
        name={name}
        type={type}
        autoComplete={autoComplete}
        required
        aria-invalid={!!fault}
      />
      {fault && <span className="text-wrong text-sm">{fault}</span>}
    </label>
  );
}

export function SignInPage() {
  const me = useMe();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const location = useLocation();
  const [isNew, setIsNew] = useState(false);
  const state: unknown = location.state;
  const from =
    typeof state === "object" && state !== null && "from" in state && typeof state.from === "string"
      ? state.from
      : "/";
  const enter = useMutation({
    mutationFn: async (form: FormData) => {
      const text = (name: string) => {
        const value = form.get(name);
        return typeof value === "string" ? value : "";
      };
      const body = { email: text("email"), password: text("password") };
      return isNew
        ? unwrap(client.POST("/api/sign-up", { body: { ...body, studio: text("studio") } }))
        : unwrap(client.POST("/api/sign-in", { body }));
    },
    onSuccess: (data) => {
      become(queries, data);
      void navigate(from, { replace: true });
    },
  });
  if (me.data?.email && !enter.isPending) return <Navigate to={from} replace />;
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    enter.mutate(new FormData(event.currentTarget));
  };
  const named = enter.error instanceof ApiError && enter.error.problem.faults.length > 0;
  return (
    <main className="mx-auto grid min-h-screen max-w-6xl items-center gap-10 p-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <div className="min-w-0">
        <h1 className="text-4xl">Rillstep</h1>
        <p className="font-text mt-2 text-xl">One bag. All its sizes. Every number proved.</p>
        <Example />
      </div>
      <form className="sheet space-y-3 p-6" onSubmit={submit} key={isNew ? "up" : "in"}>
        <h2 className="text-xl">{isNew ? "Make an account" : "Sign in"}</h2>
        <TextField
          name="email"
          label="E-mail address"
          type="email"
          autoComplete="username"
          error={enter.error}
        />
        <TextField
          name="password"
          label={isNew ? "Password (at least 10 characters)" : "Password"}
          type="password"
          autoComplete={isNew ? "new-password" : "current-password"}
          error={enter.error}
        />
        {isNew && (
          <TextField
            name="studio"
            label="Name of your studio"
            type="text"
            autoComplete="organization"
            error={enter.error}
          />
        )}
        {!named && <Trouble error={enter.error} />}
        <div className="flex flex-wrap items-center justify-between gap-2 pt-1">
          <button type="submit" className="button" disabled={enter.isPending}>
            {isNew ? "Make the account" : "Sign in"}
          </button>
          <button
            type="button"
            className="button-plain"
            onClick={() => {
              enter.reset();
              setIsNew(!isNew);
            }}
          >
            {isNew ? "I have an account" : "I am new here"}
          </button>
        </div>
      </form>
    </main>
  );
}
