import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { CSSProperties, ReactNode } from 'react';
import { Icon } from './Icon';
import { usePalette } from './theme';
import { TARGET } from './tokens';

export interface SortableListProps {
  readonly label: string;
  readonly items: readonly { readonly id: string; readonly name: string }[];
  readonly onMove: (from: number, to: number) => void;
  readonly children: (id: string) => ReactNode;
}

/** A list put in order by dragging a handle: mouse, finger, or space and arrow keys. Web elements, as the library wants them. */
export function SortableList({ label, items, onMove, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = items.map((item) => item.id);
  const ended = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  // The library's own words would say ids.
  const nameOf = (item: { readonly id: string | number } | null): string =>
    items.find(({ id }) => id === item?.id)?.name ?? '';
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active)} is taken up.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active)} is at the place of ${nameOf(over)}.` : undefined),
    onDragEnd: ({ active }) => `${nameOf(active)} is put down.`,
    onDragCancel: ({ active }) => `${nameOf(active)} is where it was.`,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={ended}
      accessibility={{ announcements }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <div role="list" aria-label={label}>
          {items.map((item) => (
            <Item key={item.id} id={item.id} name={item.name}>
              {children(item.id)}
            </Item>
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}

const HANDLE: CSSProperties = {
  width: TARGET,
  height: TARGET,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  border: 'none',
  background: 'none',
  cursor: 'grab',
  touchAction: 'none',
};

function Item({ id, name, children }: { readonly id: string; readonly name: string; readonly children: ReactNode }) {
  const palette = usePalette();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const style: CSSProperties = {
    display: 'flex',
    alignItems: 'center',
    borderBottom: `1px solid ${palette.line}`,
    background: isDragging ? palette.deedWash : 'none',
    transform: CSS.Transform.toString(transform),
    transition,
    position: 'relative',
    zIndex: isDragging ? 1 : 0,
  };
  return (
    <div ref={setNodeRef} role="listitem" style={style}>
      <button type="button" {...attributes} {...listeners} aria-label={`Move ${name}`} style={HANDLE}>
        <Icon name="move" color={palette.soft} />
      </button>
      <div style={{ flex: 1, minWidth: 0 }}>{children}</div>
    </div>
  );
}
