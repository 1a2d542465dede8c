import { Link } from "react-router";
import type { SideMeasure, TraceView } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { Table, Wide } from "../controls/Table";
import { seconds } from "../controls/words";
import { say, sayRich } from "../words/say";

const number = (value: number, digits = 1) =>
  value.toLocaleString("en-GB", { minimumFractionDigits: digits, maximumFractionDigits: digits });

/** What each channel came to, with its unit. */
export function ChannelNumbers({ view }: { view: TraceView }) {
  const seen = view.reading.analysis;
  if (!seen) return null;
  return (
    <Wide label={say("instruments.what-each-channel-came-to")}>
      <Table>
        <thead>
          <tr>
            <th>{say("instruments.channel")}</th>
            <th>{say("instruments.in-the-band")}</th>
            <th>{say("instruments.farthest")}</th>
            <th>{say("instruments.sway")}</th>
            <th>{say("instruments.path-a-second")}</th>
            <th>{say("instruments.trembling")}</th>
          </tr>
        </thead>
        <tbody>
          {seen.channels.map((c, i) => {
            const { name, unit } = view.setup.channels[i]!;
            return (
              <tr key={c.channel}>
                <th scope="row">{name}</th>
                <td>{seconds(c.inBandSeconds)}</td>
                <td>
                  {number(c.farthest)} {unit}
                </td>
                <td>
                  {number(c.swayRms, 2)} {unit}
                </td>
                <td>
                  {number(c.pathPerSecond, 2)} {unit}
                </td>
                <td>
                  {c.tremorRms === null
                    ? say("instruments.too-short")
                    : `${number(c.tremorRms ?? 0, 2)} ${unit}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Wide>
  );
}

/** How long a cuff stood about what it is set to. */
export function LevelNumbers({ view }: { view: TraceView }) {
  return view.reading.levels.map((l) => {
    const unit = view.setup.channels.find((c) => c.channel === l.channel)?.unit ?? "";
    return (
      <p key={l.channel}>
        {sayRich("instruments.heldseconds-from-set-to-set2", {
          heldSeconds: seconds(l.heldSeconds),
          set: l.set - l.within,
          set2: l.set + l.within,
          unit,
          strong: (chunks) => <strong>{chunks}</strong>,
          belowSeconds: seconds(l.belowSeconds),
          aboveSeconds: seconds(l.aboveSeconds),
        })}{" "}
        {l.mean !== null && (
          <Quiet>
            {say("instruments.mean-mean-from-lowest-to", {
              mean: number(l.mean ?? 0),
              lowest: number(l.lowest ?? 0),
              highest: number(l.highest ?? 0),
              unit,
            })}
          </Quiet>
        )}
      </p>
    );
  });
}

export function RepNumbers({ view }: { view: TraceView }) {
  const { reps } = view.reading;
  if (reps.length === 0) return <Small>{say("instruments.no-reps-show-in-this")}</Small>;
  return (
    <Wide label={say("instruments.reps")}>
      <Table>
        <thead>
          <tr>
            <th>{say("instruments.rep")}</th>
            <th>{say("instruments.from")}</th>
            <th>{say("instruments.out")}</th>
            <th>{say("instruments.held")}</th>
            <th>{say("instruments.back")}</th>
            <th>{say("instruments.whole")}</th>
          </tr>
        </thead>
        <tbody>
          {reps.map(({ rep, rushed }, i) => (
            <tr key={rep.start}>
              <th scope="row">{i + 1}</th>
              <td>{seconds(rep.start)}</td>
              <td>{seconds(rep.out ?? 0)}</td>
              <td>{seconds(rep.hold ?? 0)}</td>
              <td>{seconds(rep.back ?? 0)}</td>
              <td>
                {seconds(rep.seconds ?? 0)} {rushed && <strong>{say("instruments.too-fast")}</strong>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Wide>
  );
}

const digits = (m: SideMeasure) => (m.unit === "%" ? 0 : m.unit === "s" ? 1 : 2);

/** Both sides of the task; the one that was held less well is named. */
export function SideNumbers({ view }: { view: TraceView }) {
  if (view.sides.length === 0) return null;
  return (
    <section>
      <h2>{say("instruments.side-against-side")}</h2>
      <Wide label={say("instruments.side-against-side")}>
        <Table>
          <thead>
            <tr>
              <th>{say("instruments.what")}</th>
              <th>
                <SideTag side="left" />
              </th>
              <th>
                <SideTag side="right" />
              </th>
              <th>{say("instruments.held-less-well")}</th>
            </tr>
          </thead>
          <tbody>
            {view.sides.map((m) => (
              <tr key={m.name}>
                <th scope="row">{m.name}</th>
                <td>
                  {number(m.left, digits(m))} {m.unit}
                </td>
                <td>
                  {number(m.right, digits(m))} {m.unit}
                </td>
                <td>{m.less ? <SideTag side={m.less} /> : say("instruments.even")}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
      <Small>
        {sayRich("instruments.differences-up-to-15-are", {
          link: (chunks) => <Link to={`../traces/${view.otherSide}`}>{chunks}</Link>,
        })}
      </Small>
    </section>
  );
}
