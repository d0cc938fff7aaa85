'use client';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { RestoreReport } from '@/usecases/orders/restoreReport';

/** What the owner says and certifies in restore reports. */
export interface ReportDraft {
  readonly reason: string;
  readonly other: string;
  readonly certified: boolean;
}

/** A name with the report that the program has written for it. */
export interface NamedReport {
  readonly nameId: number;
  readonly ascii: string;
  readonly report: RestoreReport;
}

/** The restore report as it will be sent (RFC 3915), with the words that are the owner's. */
export function ReportForm({
  reports,
  draft,
  onChange,
}: {
  reports: readonly NamedReport[];
  draft: ReportDraft;
  onChange: (draft: ReportDraft) => void;
}) {
  const [first] = reports;
  return (
    <>
      <Field
        label="Why it is restored"
        value={draft.reason}
        onChange={(reason) => onChange({ ...draft, reason })}
        rows={2}
      />
      <Field label="What else is to be said" value={draft.other} onChange={(other) => onChange({ ...draft, other })} />
      <details>
        <summary>The report, as it will be sent</summary>
        <Wide>
          <Ruled aria-label="The report">
            <tbody>
              {reports.map(({ nameId, ascii, report }) => (
                <tr key={nameId}>
                  <th scope="row" className="name">
                    {ascii}
                  </th>
                  <td>
                    Before and after: {report.preData}. Deleted {report.delTime}.
                  </td>
                </tr>
              ))}
              {first?.report.statements.map((text) => (
                <tr key={text}>
                  <th scope="row">Statement</th>
                  <td>{text}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      </details>
      <Check isSelected={draft.certified} onChange={(certified) => onChange({ ...draft, certified })}>
        I certify that this is true. The registrar passes it on as my statement.
      </Check>
    </>
  );
}

/** True when the owner has given a reason and certified the report: only then it may be sent. */
export function isCertified({ reason, certified }: ReportDraft): boolean {
  return certified && reason.trim().length >= 3;
}
