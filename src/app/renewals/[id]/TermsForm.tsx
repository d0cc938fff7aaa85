'use client';
import type { Refusal } from '@/core/refusal';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Fields } from '@/ui/text/Sheet';
import type { RunTerms } from './useOpenRenewal';

interface TermsFormProps {
  readonly terms: RunTerms;
  readonly refused: Refusal | null;
  readonly onTerms: (terms: RunTerms) => void;
  /** Takes the terms as they are typed: when a field is left, or Enter is pressed. */
  readonly onChange: () => void;
}

/** What changes the price of the whole run: a promotion, and tax. */
export function TermsForm({ terms, refused, onTerms, onChange }: TermsFormProps) {
  return (
    <Form aria-label="Promotion and tax" refused={refused} onSubmit={onChange}>
      <Fields>
        <Field
          name="promotion.code"
          label="Promotion code"
          value={terms.code}
          onChange={(code) => onTerms({ ...terms, code })}
          hint="told to the registrar; its price counts"
          onBlur={onChange}
        />
        <Field
          name="promotion.percent"
          label="Promotion, percent off"
          value={terms.percent}
          onChange={(percent) => onTerms({ ...terms, percent })}
          inputMode="decimal"
          onBlur={onChange}
        />
        <Field
          name="taxPercent"
          label="Tax, percent"
          value={terms.tax}
          onChange={(tax) => onTerms({ ...terms, tax })}
          inputMode="decimal"
          hint="empty: as each account adds it"
          onBlur={onChange}
        />
      </Fields>
    </Form>
  );
}
