import {
  mdiAlertOctagonOutline,
  mdiArrowLeft,
  mdiArrowULeftTop,
  mdiCheck,
  mdiCheckCircleOutline,
  mdiChevronDown,
  mdiChevronUp,
  mdiClose,
  mdiCog,
  mdiContentSaveOutline,
  mdiFlagVariant,
  mdiFire,
  mdiHelpCircleOutline,
  mdiMinus,
  mdiPlus,
  mdiPower,
  mdiPrinterOutline,
  mdiSnowflake,
  mdiSourceBranch,
  mdiTimerSandEmpty,
  mdiToolboxOutline,
  mdiWifiOff,
  mdiWrenchOutline,
} from '@mdi/js';
import Svg, { Path } from 'react-native-svg';

const PATHS: Readonly<Record<string, string>> = {
  alert: mdiAlertOctagonOutline,
  'arrow-left': mdiArrowLeft,
  undo: mdiArrowULeftTop,
  check: mdiCheck,
  done: mdiCheckCircleOutline,
  'chevron-down': mdiChevronDown,
  'chevron-up': mdiChevronUp,
  close: mdiClose,
  settings: mdiCog,
  save: mdiContentSaveOutline,
  flag: mdiFlagVariant,
  heat: mdiFire,
  help: mdiHelpCircleOutline,
  minus: mdiMinus,
  plus: mdiPlus,
  power: mdiPower,
  print: mdiPrinterOutline,
  cold: mdiSnowflake,
  machine: mdiSourceBranch,
  timer: mdiTimerSandEmpty,
  bench: mdiToolboxOutline,
  offline: mdiWifiOff,
  repair: mdiWrenchOutline,
};

export interface IconProps {
  readonly name?: unknown;
  readonly size?: number;
  readonly color?: string;
}

/** A decorative icon; its meaning always stands beside it in words. */
export function Icon({ name, size = 20, color = 'currentColor' }: IconProps) {
  const path = typeof name === 'string' ? PATHS[name] : undefined;
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      {path ? <Path d={path} fill={color} /> : null}
    </Svg>
  );
}
