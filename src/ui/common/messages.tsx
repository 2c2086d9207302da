"use client";
/** Short messages at the foot of the screen; errors stay until they are closed. */
import { Toaster } from "sonner";

export function Messages() {
  return (
    <Toaster
      position="bottom-right"
      duration={6000}
      closeButton
      toastOptions={{
        style: {
          borderRadius: 2,
          fontFamily: "var(--font-text)",
          color: "var(--color-ink)",
          borderColor: "var(--color-seam)",
        },
        classNames: { actionButton: "!bg-enamel !text-leaf !rounded-sm", error: "!border-oxide" },
      }}
    />
  );
}
