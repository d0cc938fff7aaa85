'use client';
import { useState } from 'react';
import styled from 'styled-components';
import {
  LANGUAGE_NAMES,
  LANGUAGE_TAGS,
  LANGUAGES,
  type Language,
  LONGEST_TEXT,
  type OwnTexts,
  TEXT_KEYS,
  type TextKey,
} from '@/core/shop';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { saveShopTextsAction } from './actions';

const Rows = styled.ul`
  list-style: none;
  & li { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr); gap: 4px 18px; padding: 7px 0; border-bottom: 1px solid var(--rule); align-items: start; }
  & li > p { color: var(--ink-soft); white-space: pre-line; overflow-wrap: anywhere; }
  @media (max-width: 640px) { & li { grid-template-columns: minmax(0, 1fr); } }
`;

/** What buyers read, language by language: as it ships, and in the office's own words beside it. */
export function TextsPart({ texts }: { texts: OwnTexts }) {
  const [language, setLanguage] = useState<Language>('en');
  const changed = Object.keys(texts[language] ?? {}).length;
  return (
    <details>
      <summary>What buyers read, in five languages{changed > 0 && `, ${changed} in words of your own`}</summary>
      <Section aria-label="What buyers read">
        <Choice
          label="Language"
          value={language}
          onChange={setLanguage}
          options={LANGUAGE_TAGS.map((tag) => ({ value: tag, text: LANGUAGE_NAMES[tag] }))}
        />
        <TextsForm key={language} language={language} own={texts[language] ?? {}} />
      </Section>
    </details>
  );
}

function TextsForm({ language, own }: { language: Language; own: Readonly<Partial<Record<TextKey, string>>> }) {
  const { save, refused, isBusy } = useSave();
  const saveTexts = (form: FormData) => {
    const said = TEXT_KEYS.flatMap((key) => {
      const text = String(form.get(key) ?? '').trim();
      return text === '' ? [] : [[key, text] as const];
    });
    void save(
      saveShopTextsAction({ language, texts: Object.fromEntries(said) }),
      'Saved. Buyers read it within seconds.',
    );
  };
  return (
    <Form aria-label={`Texts in ${LANGUAGE_NAMES[language]}`} refused={refused} onSubmit={saveTexts}>
      <p className="soft">
        Left empty, a text is as it stands at the left. What stands in braces, like {'{amount}'}, is put in by the
        program.
      </p>
      <Rows lang={language}>
        {TEXT_KEYS.map((key) => (
          <li key={key}>
            <p>{LANGUAGES[language][key]}</p>
            <Field
              name={key}
              label={LANGUAGES[language][key]}
              hideLabel
              rows={LANGUAGES[language][key].length > 60 ? 3 : 0}
              maxLength={LONGEST_TEXT}
              defaultValue={own[key] ?? ''}
            />
          </li>
        ))}
      </Rows>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Save the texts
        </Button>
      </Actions>
    </Form>
  );
}
