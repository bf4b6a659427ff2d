import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import Camera from 'lucide-react-native/icons/camera';
import Check from 'lucide-react-native/icons/check';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronUp from 'lucide-react-native/icons/chevron-up';
import CircleCheck from 'lucide-react-native/icons/circle-check';
import CircleHelp from 'lucide-react-native/icons/circle-question-mark';
import Flag from 'lucide-react-native/icons/flag';
import Flame from 'lucide-react-native/icons/flame';
import Hourglass from 'lucide-react-native/icons/hourglass';
import Inbox from 'lucide-react-native/icons/inbox';
import OctagonAlert from 'lucide-react-native/icons/octagon-alert';
import GripVertical from 'lucide-react-native/icons/grip-vertical';
import Trash from 'lucide-react-native/icons/trash';
import BookOpen from 'lucide-react-native/icons/book-open';
import Pencil from 'lucide-react-native/icons/pencil';
import Plus from 'lucide-react-native/icons/plus';
import Power from 'lucide-react-native/icons/power';
import Printer from 'lucide-react-native/icons/printer';
import Save from 'lucide-react-native/icons/save';
import Share from 'lucide-react-native/icons/share-2';
import Search from 'lucide-react-native/icons/search';
import Settings from 'lucide-react-native/icons/settings';
import Snowflake from 'lucide-react-native/icons/snowflake';
import Spline from 'lucide-react-native/icons/spline';
import Undo from 'lucide-react-native/icons/undo-2';
import WifiOff from 'lucide-react-native/icons/wifi-off';
import Wrench from 'lucide-react-native/icons/wrench';
import X from 'lucide-react-native/icons/x';

const ICONS: Readonly<Record<string, typeof Check>> = {
  alert: OctagonAlert,
  'arrow-left': ArrowLeft,
  bench: Inbox,
  camera: Camera,
  check: Check,
  'chevron-down': ChevronDown,
  'chevron-up': ChevronUp,
  close: X,
  cold: Snowflake,
  done: CircleCheck,
  flag: Flag,
  heat: Flame,
  help: CircleHelp,
  machine: Spline,
  magnify: Search,
  move: GripVertical,
  remove: Trash,
  catalogue: BookOpen,
  edit: Pencil,
  offline: WifiOff,
  plus: Plus,
  power: Power,
  print: Printer,
  repair: Wrench,
  save: Save,
  settings: Settings,
  share: Share,
  timer: Hourglass,
  undo: Undo,
};

export interface IconProps {
  readonly name?: unknown;
  readonly size?: number;
  readonly color?: string;
}

/** A decorative icon; its meaning always stands beside it in words. */
export function Icon({ name, size = 20, color = 'currentColor' }: IconProps) {
  const Drawn = typeof name === 'string' ? ICONS[name] : undefined;
  return Drawn ? <Drawn size={size} color={color} style={{ flexShrink: 0 }} aria-hidden /> : null;
}

/** All that can be drawn. */
export const ICON_NAMES: readonly string[] = Object.keys(ICONS);
