import type { ReactElement, SVGProps } from "react";
import type { Mark } from "../api/client";

const radians = (degrees: number) => (degrees * Math.PI) / 180;

interface Props {
  mark: Mark;
  /** Paper height: marks count upwards, screens downwards. */
  height: number;
  className: string;
  width?: number;
}

/** Where lettering stands; leaning lettering lies on an isometric plane. */
function placed(mark: Mark & { kind: "text" }, height: number) {
  const { x, angle, slant } = mark;
  const y = height - mark.y;
  if (!slant) return { x, y, transform: angle ? `rotate(${-angle} ${x} ${y})` : undefined };
  const along = radians(angle);
  const up = radians(angle + 90 - slant);
  const turned = [Math.cos(along), -Math.sin(along), -Math.cos(up), Math.sin(up), x, y];
  return { transform: `matrix(${turned.join(" ")})` };
}

/** One mark of the display list as SVG. The only geometry here is turning the sheet the right way up. */
export function MarkShape({ mark, height, className, width }: Props): ReactElement {
  const dash = "dash" in mark && mark.dash.length > 0 ? mark.dash.join(" ") : undefined;
  const common: SVGProps<SVGElement> & { strokeWidth?: number } = {
    className,
    strokeWidth: width,
    strokeDasharray: dash,
    strokeLinecap: dash ? "butt" : undefined,
  };
  switch (mark.kind) {
    case "line":
      return (
        <line {...(common as object)} x1={mark.x1} y1={height - mark.y1} x2={mark.x2} y2={height - mark.y2} />
      );
    case "circle":
      return <circle {...(common as object)} cx={mark.cx} cy={height - mark.cy} r={mark.r} />;
    case "arc": {
      const end = mark.start + mark.sweep;
      const at = (angle: number) =>
        `${mark.cx + mark.r * Math.cos(radians(angle))} ${height - mark.cy - mark.r * Math.sin(radians(angle))}`;
      const large = Math.abs(mark.sweep) > 180 ? 1 : 0;
      const d = `M${at(mark.start)}A${mark.r} ${mark.r} 0 ${large} ${mark.sweep < 0 ? 1 : 0} ${at(end)}`;
      return <path {...(common as object)} d={d} />;
    }
    case "run": {
      const corners = mark.corners as readonly (readonly [number, number, number])[];
      const ends = mark.closed ? [...corners.slice(1), corners[0]] : corners.slice(1);
      const first = corners[0];
      const d = ends.map((end, i) => {
        const from = corners[i];
        if (!from || !end) return "";
        const [x, y, bulge] = from;
        const to = `${end[0]} ${height - end[1]}`;
        if (Math.abs(bulge) < 1e-9) return `L${to}`;
        const radius = (Math.hypot(end[0] - x, end[1] - y) * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
        return `A${radius} ${radius} 0 ${Math.abs(bulge) > 1 ? 1 : 0} ${bulge < 0 ? 1 : 0} ${to}`;
      });
      return (
        <path
          {...(common as object)}
          d={`M${first?.[0]} ${height - (first?.[1] ?? 0)}${d.join("")}${mark.closed ? "Z" : ""}`}
        />
      );
    }
    case "dot":
      return <circle className={`${className} dot`} cx={mark.x} cy={height - mark.y} r={width ?? 0.5} />;
    case "arrow": {
      const back = radians(mark.angle + 180);
      const corner = (side: number) =>
        `${mark.x + mark.length * Math.cos(back) - (side * mark.wide * Math.sin(back)) / 2} ` +
        `${height - mark.y - mark.length * Math.sin(back) - (side * mark.wide * Math.cos(back)) / 2}`;
      return (
        <path
          className={`${className} dot`}
          d={`M${mark.x} ${height - mark.y}L${corner(1)}L${corner(-1)}Z`}
          stroke="none"
        />
      );
    }
    case "text":
      return (
        <text
          className={className}
          {...placed(mark, height)}
          fontSize={mark.height * 1.4}
          textAnchor={mark.anchor}
          stroke="none"
        >
          {mark.text}
        </text>
      );
  }
}
