import { faultOfSigned } from '@zealous/contracts/entries';
import { useEffect } from 'react';
import { useForm, type ResolverResult } from 'react-hook-form';
import { StyleSheet } from 'react-native';
import { sentence } from '../ui/form/contractResolver';
import { FormText } from '../ui/form/FormFields';

export const ROLES = ['bench 1', 'bench 2', 'apprentice'] as const;
const isRole = (by: string): boolean => (ROLES as readonly string[]).includes(by);

/** A name of one's own; one that does not fit is not recorded under, and the one before stays. */
export function OtherName({ by, onName }: { readonly by: string; readonly onName: (name: string) => void }) {
  const { control, subscribe, setValue } = useForm<{ name: string }>({
    mode: 'onChange',
    defaultValues: { name: isRole(by) ? '' : by },
    resolver: (values): ResolverResult<{ name: string }> => {
      const reason = values.name.trim() === '' ? undefined : faultOfSigned(values.name.trim());
      return reason === undefined
        ? { values, errors: {} }
        : { values: {}, errors: { name: { type: 'contract', message: sentence(reason) } } };
    },
  });
  useEffect(() =>
    subscribe({
      formState: { values: true },
      callback: ({ values }) => {
        const name = values.name.trim();
        if (name !== '') {
          if (faultOfSigned(name) === undefined) onName(name);
          // A name that was emptied by hand; where a role was tapped, that stays.
        } else if (!isRole(by)) onName(ROLES[0]);
      },
    }),
  );
  // A role that was tapped takes the place of a name.
  useEffect(() => {
    if (isRole(by)) setValue('name', '');
  }, [by, setValue]);
  return (
    <FormText control={control} name="name" label="Or another name for the record" most={200} style={styles.field} />
  );
}

const styles = StyleSheet.create({ field: { maxWidth: 420 } });
