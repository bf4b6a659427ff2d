import { orderPath } from '@zealous/contracts/cards';
import type { Phase } from '@zealous/core';
import type { Href } from 'expo-router';

export const orderHref = (id: string, phase: Phase): Href => orderPath({ id, phase }) as Href;
