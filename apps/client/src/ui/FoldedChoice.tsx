import { useState } from 'react';
import { Button } from './Button';
import { Choice, type ChoiceProps } from './Choice';

/** One of many answers, shown as what is chosen; a tap shows the others. */
export function FoldedChoice<T extends string>({
  label,
  options,
  chosen,
  onChoose,
}: Pick<ChoiceProps<T>, 'label' | 'options'> & { readonly chosen: T; readonly onChoose: (id: T) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        label={`${label}: ${options.find(({ id }) => id === chosen)?.label ?? chosen}`}
        hint="Change"
        icon="chevron-down"
        kind="quiet"
        listed
        onPress={() => setOpen(!open)}
      />
      {open ? (
        <Choice
          label={label}
          options={options}
          chosen={[chosen]}
          onToggle={(id) => {
            setOpen(false);
            onChoose(id);
          }}
        />
      ) : null}
    </>
  );
}
