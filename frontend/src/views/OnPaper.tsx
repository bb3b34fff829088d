import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { rehearsal, type RehearsalOut, type Work } from "../api/client";
import { useDocument } from "../state/document";
import { look } from "../state/looks";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { Heads } from "../ui/Heads";

const EXAGGERATED = 20;
/** Joins that are listed before more are asked for, the worst first. */
const WORST = 12;
const mm = (length: number) => length.toFixed(2);

/** How well the outline will close when it is drawn by hand: the plan drawn by many hands. */
export function OnPaper({ work }: { work: Work }) {
  const kit = useDocument((document) => document.kitText);
  const [times, setTimes] = useState(EXAGGERATED);
  const [all, setAll] = useState(false);
  const { data, error } = useQuery({
    queryKey: ["rehearsal", work.text, kit],
    queryFn: ({ signal }) => rehearsal({ body: { text: work.text, kit }, signal }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  useEffect(() => () => look({ cloud: null, spot: null }), []);
  if (error) return <p role="alert">{error.message}</p>;
  if (!data || data.joins.length === 0) return null;
  const worst = [...data.joins].sort((a, b) => b.miss.nine - a.miss.nine);
  const shown = all ? worst : worst.slice(0, WORST);
  return (
    <section aria-labelledby="on-paper" className="pb-7">
      <h2 id="on-paper" className="text-lg font-semibold">
        On paper
      </h2>
      <p>
        Drawn by {data.hands} careful hands, on this sheet: how far the pieces of an outline miss each other,
        in millimetres on paper. A pencil line hides a quarter to each side. {data.whose}
      </p>
      <Check
        label={`Show the hands ${EXAGGERATED} times as far off as they are`}
        on={times > 1}
        put={(on) => setTimes(on ? EXAGGERATED : 1)}
      />
      <table className="slip w-full text-left text-base">
        <Heads of={["Join", "Half within", "Nine in ten", "Hidden"]} figures={[1, 2, 3]} boxed />
        <tbody>
          {shown.map((join, i) => {
            const show = () =>
              look({ spot: join.place, cloud: { at: join.place, places: join.cloud, times } });
            return (
              <tr key={i} className="border-b border-ruling align-top hover:bg-wash" onMouseEnter={show}>
                <th scope="row" className="px-2 font-normal">
                  <button className="text-left underline decoration-dotted" onClick={show} onFocus={show}>
                    <span className="mr-1 italic">{join.outline}</span>
                    {join.first}, {join.second}
                  </button>
                  <Why join={join} />
                </th>
                <td className="px-2 text-right">{mm(join.miss.half)}</td>
                <td className="px-2 text-right font-semibold">{mm(join.miss.nine)}</td>
                <td className="px-2 text-right">{Math.round(join.hidden * 100)} %</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {data.joins.length > WORST && (
        <Button aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "Only the worst" : `All ${data.joins.length} joins`}
        </Button>
      )}
      <Sizes data={data} />
    </section>
  );
}

/** What matters most at a join, and what would help. */
function Why({ join }: { join: RehearsalOut["joins"][number] }) {
  const best = join.instead[0];
  return (
    <details>
      <summary className="cursor-pointer text-pencil">
        {best ? `${best.told}: ${mm(best.gain)} mm less` : "what matters most"}
      </summary>
      <ul className="pb-1 text-pencil">
        {join.shares.map((share) => (
          <li key={share.step}>
            {Math.round(share.share * 100)} % {share.step}
          </li>
        ))}
        {join.instead.map((way) => (
          <li key={way.told}>
            {way.told}: nine in ten within {mm(way.nine)} mm
          </li>
        ))}
        {join.unmet > 0 && (
          <li>{Math.round(join.unmet * 100)} % of the hands: a crossing does not come about</li>
        )}
      </ul>
    </details>
  );
}

function Sizes({ data }: { data: RehearsalOut }) {
  if (data.sizes.length === 0) return null;
  return (
    <ul className="pt-2">
      {data.sizes.map((size) => (
        <li key={`${size.outline} ${size.way}`}>
          <span className="italic">{size.outline}</span>, {size.told}: nine in ten within {mm(size.off.nine)}
          {size.instead[0] && (
            <span className="text-pencil">
              {" "}
              ({size.instead[0].told}: {mm(size.instead[0].nine)})
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
