'use client';
import { ArrowUp } from 'lucide-react';
import { PAYMENT_METHOD_KINDS, type PaymentMethodKind } from '@/core/funding';
import { Button } from '@/ui/controls/Button';
import { EditableTable } from '@/ui/controls/EditableTable';
import { Choice, Field } from '@/ui/controls/Field';
import { MonthField } from '@/ui/controls/MonthField';
import { Section } from '@/ui/text/Sheet';

export interface PaymentMethodLine {
  readonly kind: PaymentMethodKind;
  readonly label: string;
  /** The last month of a card as it is typed, and as it was read. */
  readonly endsMonth: string;
  readonly month: string;
}

interface PaymentMethodsProps {
  readonly lines: readonly PaymentMethodLine[];
  readonly onChange: (lines: readonly PaymentMethodLine[]) => void;
}

/** The payment methods, in the order in which the registrar tries them. */
export function PaymentMethods({ lines, onChange }: PaymentMethodsProps) {
  const earlier = (place: number) => {
    const next = [...lines];
    const [line] = next.splice(place, 1);
    if (line) next.splice(place - 1, 0, line);
    onChange(next);
  };
  return (
    <Section aria-label="Payment methods">
      <h2>It pays from, one after the other</h2>
      <EditableTable
        label="Payment methods"
        columns={[
          {
            label: 'Kind',
            width: 140,
            cell: ({ kind }, set, place) => (
              <Choice
                label={`Payment method ${place + 1}: kind`}
                hideLabel
                name={`paymentMethods.${place}.kind`}
                value={kind}
                onChange={(chosen) => set({ kind: chosen })}
                options={PAYMENT_METHOD_KINDS.map((one) => ({ value: one, text: one }))}
              />
            ),
          },
          {
            label: 'Name',
            width: 200,
            cell: ({ kind, label }, set, place) => (
              <Field
                label={`Payment method ${place + 1}: name`}
                hideLabel
                name={`paymentMethods.${place}.label`}
                value={label}
                onChange={(text) => set({ label: text })}
                placeholder={kind}
              />
            ),
          },
          {
            label: 'Good through',
            width: 150,
            cell: ({ kind, endsMonth }, set, place) =>
              kind === 'card' ? (
                <MonthField
                  label={`Payment method ${place + 1}: good through`}
                  hideLabel
                  name={`paymentMethods.${place}.endsMonth`}
                  value={endsMonth}
                  onChange={(text, month) => set({ endsMonth: text, month })}
                />
              ) : (
                <span className="soft">no end</span>
              ),
          },
          {
            label: 'Order',
            width: 60,
            cell: ({ kind, label }, _set, place) =>
              place > 0 && (
                <Button data-kind="plain" aria-label={`Try ${label || kind} earlier`} onPress={() => earlier(place)}>
                  <ArrowUp size={14} aria-hidden />
                </Button>
              ),
          },
        ]}
        rows={lines}
        blank={{ kind: lines.length === 0 ? 'balance' : 'card', label: '', endsMonth: '', month: '' }}
        add="Add a payment method"
        onChange={onChange}
      />
    </Section>
  );
}
