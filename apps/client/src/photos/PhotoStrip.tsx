import type { OrderState } from '@zealous/core';
import { useEffect, useState } from 'react';
import { Image, Pressable, StyleSheet, View, type GestureResponderEvent } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { v4 as uuid } from 'uuid';
import { keepPhoto, photoUrl, pickPhoto, reducePhoto, waitingPhoto, whyRefused } from '../data/photos';
import type { Recorder } from '../data/useOrder';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';

export type Photo = OrderState['photos'][number];

/** Where to show a picture from: this device while it waits to be sent, the server afterwards. */
export function usePhotoSource(orderId: string, photoId: string): string {
  const [local, setLocal] = useState<string | undefined>(undefined);
  useEffect(() => {
    let made: string | undefined;
    let stale = false;
    void waitingPhoto(orderId, photoId).then((blob) => {
      if (!blob || stale) return;
      made = URL.createObjectURL(blob);
      setLocal(made);
    });
    return () => {
      stale = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [orderId, photoId]);
  return local ?? photoUrl(orderId, photoId);
}

export interface PhotoStripProps {
  readonly orderId: string;
  readonly state: OrderState;
  readonly record: Recorder;
  /** What the pictures are of: a step or finding, `part:` and a part's id, or the order. */
  readonly about: string;
  readonly label?: string;
  /** One line: no small pictures, their number only. */
  readonly compact?: boolean;
}

/** Pictures of one thing, with their markers; one tap takes another. */
export function PhotoStrip({
  orderId,
  state,
  record,
  about,
  label = 'Take a picture',
  compact = false,
}: PhotoStripProps) {
  const [open, setOpen] = useState<string | undefined>(undefined);
  const [problem, setProblem] = useState('');
  const photos = state.photos.filter((photo) => photo.about === about);
  const shown = photos.find((photo) => photo.photoId === open);
  const take = async (): Promise<void> => {
    const file = await pickPhoto();
    if (!file) return;
    try {
      const { blob, widthPx, heightPx } = await reducePhoto(file);
      const photoId = uuid();
      await keepPhoto(orderId, photoId, blob);
      record('photo-added', { photoId, about, widthPx, heightPx });
      setProblem('');
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <View style={compact ? styles.slim : styles.column}>
      <View style={styles.row}>
        {(compact ? [] : photos).map((photo) => (
          <Thumb key={photo.photoId} orderId={orderId} photo={photo} onPress={() => setOpen(photo.photoId)} />
        ))}
        <Button
          label={compact && photos.length > 0 ? `${label} (${photos.length})` : label}
          icon="camera"
          kind="quiet"
          onPress={() => void take()}
        />
      </View>
      {problem ? (
        <Text kind="small" tone="fault">
          {problem}
        </Text>
      ) : null}
      {shown ? <PhotoSheet orderId={orderId} photo={shown} record={record} onClose={() => setOpen(undefined)} /> : null}
    </View>
  );
}

function Thumb({
  orderId,
  photo,
  onPress,
}: {
  readonly orderId: string;
  readonly photo: Photo;
  readonly onPress: () => void;
}) {
  const source = usePhotoSource(orderId, photo.photoId);
  const palette = usePalette();
  return (
    <TouchableRipple
      role="button"
      aria-label={photo.caption || `Picture of ${photo.at.slice(0, 16)}`}
      onPress={onPress}
    >
      <Image source={{ uri: source }} style={[styles.thumb, { borderColor: palette.line }]} />
    </TouchableRipple>
  );
}

/** One picture, large: a tap on it sets a marker with a word. */
function PhotoSheet({
  orderId,
  photo,
  record,
  onClose,
}: {
  readonly orderId: string;
  readonly photo: Photo;
  readonly record: Recorder;
  readonly onClose: () => void;
}) {
  const palette = usePalette();
  const source = usePhotoSource(orderId, photo.photoId);
  const [width, setWidth] = useState(0);
  const [at, setAt] = useState<readonly [number, number] | undefined>(undefined);
  const [word, setWord] = useState('');
  const [refused, setRefused] = useState<string | undefined>(undefined);
  useEffect(() => {
    void whyRefused(orderId, photo.photoId).then(setRefused);
  }, [orderId, photo.photoId]);
  const height = (width * photo.heightPx) / photo.widthPx;
  const place = (event: GestureResponderEvent): void => {
    const { locationX, locationY } = event.nativeEvent;
    if (width > 0) setAt([Math.min(1, locationX / width), Math.min(1, locationY / height)]);
  };
  return (
    <Sheet title="Picture" open onClose={onClose}>
      {refused ? (
        <Text kind="small" tone="fault">
          {`Kept on this device only; the server did not take it. ${refused}`}
        </Text>
      ) : null}
      <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
        {/* Not the kit's: where the picture was tapped is what counts. */}
        <Pressable role="button" aria-label="Set a marker" onPress={place} style={{ height }}>
          <Image source={{ uri: source }} style={styles.whole} aria-label={photo.caption ?? 'Picture'} />
        </Pressable>
        {[...photo.markers, ...(at ? [{ x: at[0], y: at[1], label: '…' }] : [])].map((marker, i) => (
          <View
            key={`${i}${marker.label}`}
            style={[
              styles.marker,
              {
                left: marker.x * width - 8,
                top: marker.y * height - 8,
                backgroundColor: palette.paper,
                borderColor: palette.warm,
              },
            ]}
          >
            <Text kind="small" bold>
              {marker.label.startsWith('#') ? `${Number(marker.label.slice(1)) + 1}` : marker.label}
            </Text>
          </View>
        ))}
      </View>
      {at ? (
        <View style={styles.column}>
          <Field label="What is there?" value={word} onChange={setWord} most={60} />
          <Button
            label="Set this marker"
            disabled={word.trim() === ''}
            onPress={() => {
              record('photo-marked', {
                photoId: photo.photoId,
                markers: [...photo.markers, { x: at[0], y: at[1], label: word.trim() }],
              });
              setAt(undefined);
              setWord('');
            }}
          />
        </View>
      ) : (
        <Text kind="small" tone="soft">
          Tap the picture to set a marker.
        </Text>
      )}
      <Button
        label="Take this picture out of the order"
        kind="quiet"
        icon="remove"
        onPress={() => {
          record('event-withdrawn', { eventId: photo.eventId });
          onClose();
        }}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  // The touch target reaches over the line that it stands in.
  slim: { marginVertical: -space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.s },
  thumb: { width: 72, height: 72, borderRadius: radius.m, borderWidth: 1 },
  whole: { width: '100%', height: '100%' },
  marker: { position: 'absolute', minWidth: 20, borderWidth: 2, borderRadius: radius.m, paddingHorizontal: space.xs },
});
