import type { ToolId } from "../../forms/lab";
import type { FormResult } from "../../ui/adder";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
import type { Bench } from "./tools/tool";

/** Sends the answer, and the way back to it, to an athlete's page or a plan. */
export function SendTo({
  bench,
  tool,
  state,
  answer,
  result,
}: {
  bench: Bench;
  tool: ToolId;
  state: string;
  answer: string;
  result: (FormResult & { value?: { name: string } }) | undefined;
}) {
  return (
    <Form method="post" aria-label="Send the answer" className="grid gap-2" replace>
      <h2>Send the answer</h2>
      <p className={answer ? "" : "text-muted"}>{answer || "No answer yet."}</p>
      <input type="hidden" name="tool" value={tool} />
      <input type="hidden" name="state" value={state} />
      <input type="hidden" name="answer" value={answer.slice(0, 300)} />
      <Select label="To" inline name="target" defaultValue="">
        <option value="">choose</option>
        <optgroup label="Athletes">
          {bench.athletes.map((one) => (
            <option key={one.id} value={`athlete:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Plans">
          {bench.plans.map((one) => (
            <option key={one.id} value={`plan:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
      </Select>
      <button type="submit" className="btn" disabled={answer === ""}>
        Send
      </button>
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          Sent to {result.value?.name}.
        </p>
      ) : null}
    </Form>
  );
}
