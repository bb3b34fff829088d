import Markdown from "react-markdown";
import { Link, useNavigate } from "react-router";
import remarkGfm from "remark-gfm";
import { enterJob } from "../api/client";
import { tellProblem } from "../state/document";
import { Button } from "../ui/Button";

/** What a page says: Markdown made by the desk; a plan in it can be taken to the bench. */
export function Told({ markdown, title }: { markdown: string; title: string }) {
  return (
    <div className="told">
      <Markdown
        remarkPlugins={[remarkGfm]}
        components={{
          a: ({ href = "", children }) => <Link to={href}>{children}</Link>,
          pre: ({ children }) => <>{children}</>,
          code: ({ className = "", children }) =>
            className.includes("entrick") ? (
              <PlanShown text={String(children)} title={title} />
            ) : (
              <code>{children}</code>
            ),
          table: ({ children }) => (
            <div className="overflow-x-auto">
              <table>{children}</table>
            </div>
          ),
        }}
      >
        {markdown}
      </Markdown>
    </div>
  );
}

function PlanShown({ text, title }: { text: string; title: string }) {
  const go = useNavigate();
  const begin = async () => {
    try {
      const headed = text.startsWith("plan ") ? text : `plan "Example: ${title}"\n${text}`;
      const job = await enterJob({ body: { text: headed, note: `from the handbook, ${title}` } });
      await go(`/jobs/${job.id}`);
    } catch (problem) {
      tellProblem(problem);
    }
  };
  return (
    <>
      <pre className="slip overflow-x-auto p-3 text-sm">{text}</pre>
      <p className="not-on-paper">
        <Button onClick={() => void begin()}>Open it as a job of its own</Button>
      </p>
    </>
  );
}
