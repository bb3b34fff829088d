import { useRef } from "react";
import { Button } from "./Button";

interface Props {
  /** What the press says. */
  children: string;
  /** What the field is called by assistive technology. */
  label: string;
  accept: string;
  take: (file: File) => void;
}

/** A press that asks for a file. */
export function FileButton({ children, label, accept, take }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => input.current?.click()}>{children}</Button>
      <input
        ref={input}
        type="file"
        className="hidden"
        accept={accept}
        aria-label={label}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) take(chosen);
        }}
      />
    </>
  );
}
