"use client";
import { FileUp } from "lucide-react";
import { useId, useState } from "react";
/** A file that is picked and read at once; what is wrong with it stands beside the words. */
import { Fault } from "./notice";

export type FileFieldProps = {
  readonly label: string;
  readonly accept: string;
  /** The sentence why it cannot be taken, or null. */
  readonly onFile: (file: File) => Promise<string | null>;
};

export function FileField({ label, accept, onFile }: FileFieldProps) {
  const id = useId();
  const [fault, setFault] = useState<string | null>(null);
  return (
    <span className="self-end">
      <label
        htmlFor={id}
        className="inline-flex h-7 cursor-pointer items-center gap-1.5 font-semibold text-enamel hover:underline"
      >
        <FileUp size={14} aria-hidden /> {label}
      </label>
      <input
        id={id}
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void onFile(file).then(setFault);
          event.target.value = "";
        }}
      />
      {fault ? <Fault>{fault}</Fault> : null}
    </span>
  );
}
