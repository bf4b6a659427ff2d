import { SAFETY_NOTE } from '@zealous/core';
import { settingsChanged } from '../data/settingsSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { Learning } from './Learning';
import { OtherName, ROLES } from './OtherName';

export function SettingsScreen() {
  const dispatch = useAppDispatch();
  const { by, theme, text } = useAppSelector((root) => root.settings);
  return (
    <Page title="Settings">
      <Section title="Who is at this phone?">
        <Choice
          label="Role"
          options={ROLES.map((id) => ({ id: id as string, label: id }))}
          chosen={[by]}
          onToggle={(id) => dispatch(settingsChanged({ by: id }))}
        />
        <OtherName by={by} onName={(name) => dispatch(settingsChanged({ by: name }))} />
      </Section>
      <Section title="Light">
        <Choice
          label="Light"
          options={[
            { id: 'device', label: 'As the device' },
            { id: 'day', label: 'Day' },
            { id: 'night', label: 'Night' },
          ]}
          chosen={[theme]}
          onToggle={(id) => dispatch(settingsChanged({ theme: id as typeof theme }))}
        />
      </Section>
      <Section title="How high the text is">
        <Choice
          label="How high the text is"
          options={[
            { id: 'device', label: 'As this device' },
            { id: 'larger', label: 'Larger' },
            { id: 'largest', label: 'Largest' },
          ]}
          chosen={[text]}
          onToggle={(id) => dispatch(settingsChanged({ text: id }))}
        />
      </Section>
      <Learning />
      <Section title="Safety">
        <Text>{SAFETY_NOTE}</Text>
      </Section>
    </Page>
  );
}
