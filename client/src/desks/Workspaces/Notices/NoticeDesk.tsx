import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import { useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Desk, Empty } from "../../../parts/Desk";
import { useRefusal } from "../../../parts/form/refusal";
import { useKeptForm } from "../../../parts/form/useKeptForm";
import { Problem } from "../../../parts/Problem";
import { NoticeForm } from "./NoticeForm";
import { NoticeList } from "./NoticeList";
import { NoticeReach } from "./NoticeReach";
import { NoticeReaders } from "./NoticeReaders";
import { blank, bodyOf, namedIn, typedOf, type Typed } from "./noticing";
import "./notices.css";

type Line = Schemas["NoticeLine"];

/** Tells something to one class, several, a group or the school; what was told, and who has seen it. */
export function NoticeDesk() {
  const view = useQuery({ queryKey: ["notices"], queryFn: () => take(api.GET("/api/notices")) });
  const [address, setAddress] = useSearchParams();
  const [done, setDone] = useState("");
  const v = view.data;
  const was = v?.notices.find((n) => n.id === Number(address.get("change")) && n.may);
  const over = () => setAddress({}, { replace: true });
  if (!v)
    return (
      <Desk title="Notices">
        <Problem error={view.error} />
      </Desk>
    );
  return (
    <Writing
      key={was ? `${was.id}-${was.version}` : `new-${address.get("classes") ?? ""}`}
      view={v}
      was={was}
      begin={{ ...blank, classes: namedIn(address.get("classes"), v.classes) }}
      done={done}
      onDone={(said) => {
        setDone(said);
        over();
      }}
      onChange={(n) => {
        setDone("");
        setAddress({ change: String(n.id) });
      }}
      onLeave={over}
    />
  );
}

function Writing(props: {
  view: Schemas["NoticesView"];
  was?: Line;
  begin: Typed;
  done: string;
  onDone: (said: string) => void;
  onChange: (n: Line) => void;
  onLeave: () => void;
}) {
  const { view, was } = props;
  const form = useKeptForm<Typed>(
    was ? `notice:${was.id}:${was.version}` : `notice:new:${props.begin.classes.join("-")}`,
    was ? typedOf(was) : props.begin,
  );
  const typed = useWatch({ control: form.control }) as Typed;
  const [withdrawing, setWithdrawing] = useState<Line | null>(null);
  const [reading, setReading] = useState<Line | null>(null);
  const [round, setRound] = useState(0);
  const save = useAct(
    async (_: void, headers) => {
      const body = bodyOf(form.getValues());
      if (!was) await take(api.POST("/api/notices", { body, headers }));
      else
        await take(
          api.PUT("/api/notices/{noticeId}", {
            params: { path: { noticeId: was.id }, query: { version: was.version } },
            body,
            headers,
          }),
        );
    },
    () => {
      form.drop();
      setRound(round + 1);
      props.onDone(was ? "Changed." : typed.postOn ? "It is posted when its moment comes." : "Posted.");
    },
  );
  const withdraw = useAct(
    (n: Line, headers) =>
      take(
        api.DELETE("/api/notices/{noticeId}", {
          params: { path: { noticeId: n.id }, query: { version: n.version } },
          headers,
        }),
      ),
    () => {
      setWithdrawing(null);
      props.onDone("Withdrawn: nobody finds it any more.");
    },
  );
  const beside = useRefusal(form, save.error, ["postOn", "pinnedUntil", "until", "text", "classes", "files"]);
  const mayWrite = view.classes.length > 0 || view.mayTellSchool;
  const waits = typed.postOn !== "";
  return (
    <Desk
      title={was ? "Change a notice" : "Notices"}
      wide
      lead="To one class, several, a group or the whole school. Students find it in their day and in the class."
      slip={
        mayWrite && (
          <>
            {!was && <NoticeReach typed={typed} />}
            {was && (
              <Typography variant="h2">{was.state === "Posted" ? "Posted already" : "Waits"}</Typography>
            )}
            {was?.state === "Posted" && (
              <Typography variant="body2">
                Changed words are there at once and say that they were changed. Where it stands, stays.
              </Typography>
            )}
            <Button
              variant="contained"
              disabled={save.isPending}
              onClick={() => void form.handleSubmit(() => save.mutate())()}
            >
              {was
                ? was.state === "Waits" && !waits
                  ? "Change and post it now"
                  : "Change it"
                : waits
                  ? "Post it then"
                  : "Post it now"}
            </Button>
            {was && <Button onClick={props.onLeave}>Leave it as it is</Button>}
            <Problem error={beside} />
            {form.kept && (
              <Typography variant="body2">
                What you typed is kept here. <Button onClick={form.drop}>Drop it</Button>
              </Typography>
            )}
          </>
        )
      }
    >
      <Typography role="status" variant="body2" className={props.done ? "notice-done" : "only-heard"}>
        {props.done}
      </Typography>
      {mayWrite ? (
        <NoticeForm form={form} typed={typed} view={view} was={was} round={round} />
      ) : (
        <Empty title="You are staff of no class that is open or in preparation.">
          Notices of your classes stand here.
        </Empty>
      )}
      <NoticeList
        notices={view.notices}
        onChange={props.onChange}
        onWithdraw={setWithdrawing}
        onReaders={setReading}
      />
      {reading && <NoticeReaders notice={reading} onClose={() => setReading(null)} />}
      <Ask
        open={withdrawing !== null}
        title="Withdraw this notice?"
        act="Withdraw it"
        busy={withdraw.isPending}
        error={withdraw.error}
        onAct={() => withdrawing && withdraw.mutate(withdrawing)}
        onClose={() => setWithdrawing(null)}
      >
        <Typography className="notice-quote">{withdrawing?.text}</Typography>
        <Typography>
          {withdrawing?.state === "Waits"
            ? "It was not posted yet: nobody has seen it."
            : `${withdrawing?.seen ?? 0} have seen it. Nobody finds it from now on.`}{" "}
          It stays on record here and in the package of the class, and is not brought back.
        </Typography>
      </Ask>
    </Desk>
  );
}
