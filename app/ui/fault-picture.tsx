import type { BoxFault } from "../../core/boxsquat/box-faults";

type Kind = NonNullable<BoxFault["picture"]>;

/** A stick lifter on a box, drawn by us: what is seen in the accent, where it should be dashed. */
export function FaultPicture({ kind, name }: { kind: Kind; name: string }) {
  const body = "stroke-current fill-none";
  const wrong = "stroke-[var(--color-accent)] fill-none";
  const right = "stroke-[var(--muted)] fill-none";
  const box = <rect x={8} y={62} width={30} height={22} className="fill-[var(--iron-soft)]" />;
  const side = (hip: [number, number], knee: [number, number], shoulder: [number, number]) => (
    <>
      <path d={`M${hip} L${knee} L${knee[0] - 1},84`} strokeWidth={3} className={body} />
      <path d={`M${hip} L${shoulder}`} strokeWidth={3} className={body} />
      <circle cx={shoulder[0] + 3} cy={shoulder[1] - 8} r={5} className={body} strokeWidth={2} />
      <circle cx={shoulder[0]} cy={shoulder[1]} r={7} className={body} strokeWidth={1.5} />
    </>
  );
  const front = (kneeL: number, kneeR: number) => (
    <>
      <path
        d={`M50,44 L${kneeL},62 L28,84`}
        strokeWidth={3}
        className={kneeL === 30 ? body : wrong}
      />
      <path
        d={`M50,44 L${kneeR},62 L72,84`}
        strokeWidth={3}
        className={kneeR === 70 ? body : wrong}
      />
      <path d="M50,44 L50,20" strokeWidth={3} className={body} />
      <circle cx={50} cy={11} r={6} strokeWidth={2} className={body} />
    </>
  );
  const pictures: Record<Kind, React.ReactNode> = {
    high: (
      <>
        <rect x={8} y={44} width={30} height={40} className="fill-[var(--iron-soft)]" />
        {side([26, 40], [58, 52], [40, 14])}
        <path d="M16,52 L70,52" strokeDasharray="3 3" className={right} />
        <path d="M26,40 L26,52" strokeWidth={3} className={wrong} />
      </>
    ),
    low: (
      <>
        <rect x={8} y={72} width={30} height={12} className="fill-[var(--iron-soft)]" />
        {side([26, 68], [58, 52], [50, 38])}
        <path d="M16,52 L70,52" strokeDasharray="3 3" className={right} />
        <path d="M26,68 L26,52" strokeWidth={3} className={wrong} />
      </>
    ),
    knees: (
      <>
        {front(42, 58)}
        <path
          d="M50,44 L30,62 L28,84 M50,44 L70,62 L72,84"
          strokeDasharray="3 3"
          className={right}
        />
      </>
    ),
    rock: (
      <>
        {box}
        {side([26, 58], [58, 52], [30, 24])}
        <path d="M26,58 L48,28" strokeDasharray="3 3" className={right} />
        <path d="M34,20 q10,-6 18,2" strokeWidth={2.5} className={wrong} />
      </>
    ),
    heels: (
      <>
        {box}
        {side([26, 58], [60, 52], [48, 28])}
        <path d="M52,80 L66,86" strokeWidth={3} className={wrong} />
        <path d="M50,86 L66,86" strokeDasharray="3 3" className={right} />
      </>
    ),
    torso: (
      <>
        {box}
        <path d="M26,58 L58,52 L57,84" strokeWidth={3} className={body} />
        <path d="M26,58 L26,22" strokeWidth={3} className={wrong} />
        <path d="M26,58 L46,28" strokeDasharray="3 3" className={right} />
        <circle cx={28} cy={13} r={5} strokeWidth={2} className={body} />
      </>
    ),
    bar: (
      <>
        {front(30, 70)}
        <path d="M14,30 L86,20" strokeWidth={3} className={wrong} />
        <path d="M14,25 L86,25" strokeDasharray="3 3" className={right} />
      </>
    ),
  };
  return (
    <svg
      viewBox="0 0 100 90"
      className="h-20 w-24 shrink-0"
      role="img"
      aria-label={`Drawing: ${name}`}
    >
      <path d="M4,86 L96,86" className="stroke-[var(--control)]" />
      {pictures[kind]}
    </svg>
  );
}
