import { useQuery } from "@tanstack/react-query";
import { classWeeks } from "../api/client";
import { keep } from "../api/files";
import { Button } from "../ui/Button";
import { Tabled } from "../ui/Tabled";

/** By which the record of the class is remembered. */
export const RECORD = ["class record"];

const percent = (share: number | null) => (share === null ? "" : `${Math.round(share * 100)}`);

/** The class over weeks: the commonest slips and whose, every student by rule, slips by name. */
export function Record() {
  const { data } = useQuery({ queryKey: RECORD, queryFn: () => classWeeks() });
  if (!data?.weeks.length) return null;
  const weeks = data.weeks.map((week) => week.replace(/^\d+-W0?/, "week "));
  return (
    <section aria-labelledby="record" className="space-y-2">
      <h2 id="record" className="text-lg font-semibold">
        The class over weeks
      </h2>
      {data.commonest.length > 0 && (
        <>
          <h3 className="font-semibold">What went wrong most in the last of them</h3>
          <ul>
            {data.commonest.map((each) => (
              <li key={each.slip}>
                {each.slip}, {each.times}×: {each.whose.join(", ")}
              </li>
            ))}
          </ul>
        </>
      )}
      <Tabled
        label="Right answers of every student by week, percent"
        heads={["% right", ...weeks]}
        rows={[
          ["the class", ...data.shares.map(percent)],
          ...data.students.map((each) => [each.who, ...each.shares.map(percent)]),
        ]}
      />
      {[{ who: "The class", rules: data.rules, slips: [] }, ...data.students].map((each) => (
        <details key={each.who}>
          <summary className="cursor-pointer">{each.who}: by rule</summary>
          <Tabled
            label={`${each.who} by rule and week`}
            heads={["% right", ...weeks]}
            rows={each.rules.map((row) => [row.told, ...row.shares.map(percent)])}
          />
          {each.slips.length > 0 && (
            <p className="text-pencil">
              Slips: {each.slips.map(([slip, times]) => `${slip} ${times}×`).join(", ")}
            </p>
          )}
        </details>
      ))}
      <Button onClick={() => keep(new Blob([data.csv], { type: "text/csv" }), "class-record.csv")}>
        ↓ The record, CSV
      </Button>
    </section>
  );
}
