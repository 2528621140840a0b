import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, dataOf, type TemplateDetail } from "../api/client";
import { ask } from "../api/queries";
import { AskReason } from "../shared/AskReason";
import { dayAndTime } from "../shared/amounts";
import { Failed, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { useKept } from "../shared/useKept";
import { CorrectedAgain } from "./CorrectedAgain";
import { DriftList } from "./DriftList";
import { Versions } from "./Versions";

/** One template: how its vendor's layout holds, its versions, and what can be done with it. */
export function TemplatePage() {
  const name = useParams().name ?? "";
  const template = useQuery(ask.template(name));
  useWhereabouts(name, [{ name, to: `/templates/${name}` }]);
  return (
    <main className="page">
      {template.isPending && <Loading what="the template" />}
      {template.isError && <Failed error={template.error} again={() => template.refetch()} />}
      {template.data && <OneTemplate key={template.data.newest} template={template.data} />}
    </main>
  );
}

/** What a person is about to do with the template, and must say why. */
type Act = { what: "retirement" | "comeback" | "renaming" } | { what: "return"; version: number };

function OneTemplate({ template }: { template: TemplateDetail }) {
  const { name } = template;
  const [act, setAct] = useState<Act | null>(null);
  const drift = useQuery(ask.drift(name));
  const repeated = useQuery(ask.correctedAgain(name));
  return (
    <>
      <div className="row" style={{ justifyContent: "space-between" }}>
        <h1>{template.vendor}</h1>
        <div className="row">
          {template.lastInvoice !== null && (
            <Button size="xs" component={Link} to={`/desk/${template.lastInvoice}`}>
              Open on the desk
            </Button>
          )}
          <Button
            size="xs"
            variant="default"
            component="a"
            download={`${name}.template.json`}
            href={`data:application/json;charset=utf-8,${encodeURIComponent(`${JSON.stringify(template.document, null, 2)}\n`)}`}
          >
            Download
          </Button>
          <Button size="xs" variant="default" onClick={() => setAct({ what: "renaming" })}>
            Rename
          </Button>
          <Button
            size="xs"
            variant="default"
            onClick={() => setAct({ what: template.isRetired ? "comeback" : "retirement" })}
          >
            {template.isRetired ? "Bring back" : "Retire"}
          </Button>
        </div>
      </div>
      <p className="soft">
        {name}, version {template.newest}, saved by {template.savedBy}, {dayAndTime(template.savedAt)} UTC
        {template.formerly !== "" && `; was ${template.formerly} before`}
        {template.isRetired && (
          <strong> × Retired: it recognises nothing any more, and its history is kept.</strong>
        )}
      </p>
      {drift.data && drift.data.length > 0 && <DriftList drift={drift.data} />}
      {repeated.data && repeated.data.length > 0 && (
        <CorrectedAgain template={name} repeated={repeated.data} />
      )}
      <Versions
        name={name}
        newest={template.newest}
        goBack={(version) => setAct({ what: "return", version })}
      />
      {act && <AskAct template={template} act={act} close={() => setAct(null)} />}
    </>
  );
}

const WORDS = {
  retirement: {
    title: "Retire this template?",
    says: "It recognises no invoice any more. Those it has captured stay as they are, and it can be brought back.",
    decide: "Retire it",
  },
  comeback: {
    title: "Bring this template back?",
    says: "It recognises invoices again, and what is unplaced is captured anew.",
    decide: "Bring it back",
  },
  renaming: {
    title: "Rename this template?",
    says: "Invoices keep the name that captured them; the old name is retired and its history kept.",
    decide: "Rename it",
  },
  return: {
    title: "Make this version the current one again?",
    says: "It is saved as the newest version, and whatever is held or unplaced is captured anew by it.",
    decide: "Make it current",
  },
};

function AskAct({ template, act, close }: { template: TemplateDetail; act: Act; close: () => void }) {
  const { name } = template;
  const [note, setNote] = useKept(`template.${name}.${act.what}`, "");
  const [newName, setNewName] = useState(name);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const words = WORDS[act.what];
  const options = {
    params: { path: { name } },
    headers: { "If-Match": `"${template.newest}"` },
  };
  const doIt = useMutation({
    mutationFn: () => {
      switch (act.what) {
        case "retirement":
          return dataOf(api.POST("/api/v1/templates/{name}/retirement", { ...options, body: { note } }));
        case "comeback":
          return dataOf(api.POST("/api/v1/templates/{name}/comeback", { ...options, body: { note } }));
        case "renaming":
          return dataOf(
            api.POST("/api/v1/templates/{name}/renaming", { ...options, body: { name: newName, note } }),
          );
        case "return":
          return dataOf(
            api.POST("/api/v1/templates/{name}/return", { ...options, body: { version: act.version, note } }),
          );
      }
    },
    onSuccess: (saved) => {
      setNote("");
      close();
      queries.invalidateQueries();
      navigate(`/templates/${saved.name}`);
    },
  });
  return (
    <AskReason
      title={words.title}
      label="Why"
      decide={words.decide}
      leave="Leave it as it is"
      opened
      close={close}
      reason={note}
      setReason={setNote}
      act={{ isPending: doIt.isPending, error: doIt.error, mutate: () => doIt.mutate() }}
    >
      <p style={{ marginTop: 0 }}>{words.says}</p>
      {act.what === "renaming" && (
        <TextInput
          label="Its new name"
          description="Lower-case words, joined by hyphens"
          value={newName}
          onChange={(event) => setNewName(event.currentTarget.value)}
        />
      )}
    </AskReason>
  );
}
