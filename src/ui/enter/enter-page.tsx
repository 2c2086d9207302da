"use client";
import { useForm } from "react-hook-form";
import { Button } from "../common/button";
/** One field for the passcode of the shop. */
import { FormField } from "../common/form-field";
import { call } from "../common/http";

export function EnterPage({ to }: { readonly to: string }) {
  const form = useForm<{ passcode: string }>({ defaultValues: { passcode: "" } });
  const { isSubmitting } = form.formState;
  const enter = async ({ passcode }: { readonly passcode: string }) => {
    const reply = await call("POST", "/api/enter", { passcode });
    if (reply.ok) window.location.assign(to);
    else form.setError("passcode", { type: "refused", message: reply.problem.message });
  };
  return (
    <main className="mx-auto mt-[16vh] max-w-[360px] border border-seam bg-leaf p-6">
      <h1 className="font-semibold font-slab text-[22px]">Rustic Tally</h1>
      <form
        onSubmit={(event) => void form.handleSubmit(enter)(event)}
        noValidate
        className="mt-4 flex flex-col gap-3"
      >
        <FormField
          form={form}
          name="passcode"
          label="Passcode of the shop"
          type="password"
          autoComplete="current-password"
        />
        <Button look="primary" type="submit" disabled={isSubmitting || form.watch("passcode") === ""}>
          Enter
        </Button>
      </form>
    </main>
  );
}
