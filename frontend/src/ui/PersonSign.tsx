/** The mark of a person, told apart by its shape and not by a colour. */
const SHAPES: Record<string, string> = {
  circle: "M1 6a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z",
  square: "M1.5 1.5h9v9h-9Z",
  triangle: "M6 1L11.2 10.5H.8Z",
  diamond: "M6 .5L11.5 6L6 11.5L.5 6Z",
  cross: "M1 3L3 1L6 4L9 1L11 3L8 6L11 9L9 11L6 8L3 11L1 9L4 6Z",
  plus: "M4.5 1h3v3.5H11v3H7.5V11h-3V7.500H1v-3h3.500Z",
  ring: "M1 6a5 5 0 1 0 10 0a5 5 0 1 0 -10 0ZM3.500 6a2.500 2.500 0 1 1 5 0a2.500 2.500 0 1 1 -5 0Z",
  bar: "M1 4h10v4H1Z",
  half: "M1 9a5 5 0 0 1 10 0Z",
  hexagon: "M3.200 1.200h5.600L11.600 6L8.800 10.800H3.200L.4 6Z",
};

export const SIGNS = Object.keys(SHAPES);

export function PersonSign({ sign }: { sign: string }) {
  return (
    <svg viewBox="0 0 12 12" className="inline-block size-3 shrink-0" aria-hidden="true" fill="currentColor">
      <path fillRule="evenodd" d={SHAPES[sign] ?? SHAPES["circle"]} />
    </svg>
  );
}
