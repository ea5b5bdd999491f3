import { useMutation, useQueryClient } from "@tanstack/react-query";
import { get, set, useForm } from "react-hook-form";
import type { DefaultValues, FieldErrors, FieldValues, Path, UseFormReturn } from "react-hook-form";
import { useState } from "react";
import { problemsOf } from "@fiscalon/contract/problems";
import type { BodySchema } from "@fiscalon/contract/problems";
import { overtakenBy } from "./overtaken.ts";
import type { Overtaken } from "./overtaken.ts";

/** Where what concerns no field is noted; not `root`, which the form forgets on every submit. */
const REST = "_rest";

/** A form whose fields become a body of the API. */
export interface BodyForm<Values extends FieldValues> {
  form: UseFormReturn<Values>;
  submit: () => void;
  /** What was refused and concerns no field of the form. */
  error: Error | null;
  /** What was refused of a part of the body that no field is named after. */
  problemAt: (path: string) => string | undefined;
  pending: boolean;
  /** Somebody else changed the same meanwhile: what they made of it, what is typed here, and the choice. */
  overtaken: { of: Overtaken; yours: object; keepMine: () => void; takeTheirs: () => void } | null;
}

interface Options<Values extends FieldValues, Body extends object, Answer> {
  values: Values;
  /** The schema the server checks the body with; undefined where the form sends none. */
  schema?: BodySchema | undefined;
  /** What is sent of what is typed. */
  body: (values: Values) => Body;
  send: (body: Body, typed: Values, seen: number | undefined) => Promise<Answer>;
  /** How far the audit trail had been seen when what is changed was read. */
  seen?: number | undefined;
  onSaved: (answer: Answer, values: Values) => void;
  /** Whose queries are asked anew once it is saved. */
  refresh?: readonly unknown[];
}

/**
 * A form over a body of the API: checked before it is sent by the schema that the server checks it with; what the server
 * refuses all the same stands beside its field. The names of fields are those of the body, which is why the resolver is
 * our own: it checks what is sent, not what is typed.
 */
export function useBodyForm<Values extends FieldValues, Body extends object, Answer>({
  values,
  schema,
  body,
  send,
  seen,
  onSaved,
  refresh,
}: Options<Values, Body, Answer>): BodyForm<Values> {
  const queries = useQueryClient();
  // What is typed was begun from what was read then, whatever is read meanwhile.
  const [seenAtFirst] = useState(seen);
  const form = useForm<Values>({
    defaultValues: values as DefaultValues<Values>,
    resolver: (typed) => {
      const checked = schema?.validate(body(typed), {
        abortEarly: false,
        errors: { wrap: { label: false } },
      });
      const problems = checked?.error ? problemsOf(checked.error) : [];
      if (problems.length === 0) return { values: typed, errors: {} };
      const errors: FieldErrors<Values> = {};
      for (const { field, message } of problems) {
        const place = ownField(typed, field);
        if (get(errors, place) === undefined) set(errors, place, { type: field ?? "", message });
      }
      return { values: {}, errors };
    },
  });
  const save = useMutation({
    mutationFn: ({ typed, upTo }: { typed: Values; upTo: number | undefined }) =>
      send(body(typed), typed, upTo),
    onSuccess: async (answer, { typed }) => {
      if (refresh) await queries.invalidateQueries({ queryKey: refresh });
      onSaved(answer, typed);
    },
    onError: (error, { typed }) => {
      if (overtakenBy(error)) return;
      const path = fieldOf(error);
      form.setError(ownField(typed, path) as Path<Values>, { type: path, message: error.message });
    },
  });
  const rest = form.formState.errors[REST] as { type: string; message: string } | undefined;
  const overtaken = overtakenBy(save.error);
  const typed = save.variables?.typed;
  return {
    form,
    submit: () => void form.handleSubmit((values) => save.mutate({ typed: values, upTo: seenAtFirst }))(),
    error: rest ? new Error(rest.message) : null,
    problemAt: (path) => (rest?.type === path ? rest.message : undefined),
    pending: save.isPending,
    overtaken:
      overtaken && typed
        ? {
            of: overtaken,
            yours: body(typed),
            keepMine: () => save.mutate({ typed, upTo: overtaken.entry }),
            takeTheirs: () => {
              save.reset();
              if (refresh) void queries.invalidateQueries({ queryKey: refresh });
            },
          }
        : null,
  };
}

/** The path in the body that an answer concerns, where it tells one. */
function fieldOf(error: Error): string {
  return "field" in error && typeof error.field === "string" ? error.field : "";
}

/** The field of the form that a path of the body lies in: of a list or a part of its own the very place in it. */
function ownField(typed: FieldValues, path: string | undefined): string {
  const dotted = (path ?? "").replace(/^\./, "").replace(/\[(\d+)\]/g, ".$1");
  const [name = ""] = dotted.split(".");
  if (name === "" || !(name in typed)) return REST;
  return typeof typed[name] === "object" && typed[name] !== null ? dotted : name;
}
