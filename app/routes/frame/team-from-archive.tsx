import { useState } from "react";
import { Adder } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Notice } from "../../ui/page";

interface Answer {
  ok: boolean;
  message?: string;
}

/** Makes a team of an archive: chosen here, sent as it is, open when it is in. */
export function TeamFromArchive() {
  const [file, setFile] = useState<File>();
  const [name, setName] = useState("");
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const send = async () => {
    if (!file) {
      setProblem("Choose the archive first: a file that Data › Backup gave.");
      return;
    }
    setBusy(true);
    setProblem(undefined);
    try {
      const answer = await fetch(`/account/archive?${new URLSearchParams({ name })}`, {
        method: "POST",
        headers: { "content-type": "application/zip" },
        body: file,
      });
      const said = answer.headers.get("content-type")?.includes("json")
        ? ((await answer.json()) as Answer)
        : { ok: false, message: await answer.text() };
      if (said.ok) {
        window.location.assign("/people");
        return;
      }
      setProblem(said.message ?? "The archive could not be brought in. Try again.");
    } catch {
      setProblem("The link broke before the answer came. Look at your teams, then try again.");
    }
    setBusy(false);
  };
  return (
    <Adder title="A team from its archive" open={problem !== undefined}>
      <form
        aria-label="A team from its archive"
        className="grid max-w-md gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <p className="text-muted">
          Everything of it comes in as a team of its own, with every id and version. Its people wait
          for links of their own; you own it. Tablets are paired anew.
        </p>
        <label className="block">
          <span className="mb-0.5 block text-muted">Archive</span>
          <input
            type="file"
            accept=".zip,application/zip"
            className="file-input file-input-sm !h-9"
            onChange={(event) => setFile(event.target.files?.[0])}
          />
        </label>
        <Field
          label="Called here"
          name="name"
          inline
          hint="empty for its own name"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        {problem ? <Notice kind="problem" title={problem} /> : null}
        <button type="submit" className="btn justify-self-start" disabled={busy}>
          {busy ? "Bringing it in …" : "Bring it in"}
        </button>
      </form>
    </Adder>
  );
}
