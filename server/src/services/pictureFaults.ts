import { Op, type Transaction } from 'sequelize';
import type { Fault } from '@isometra/core';
import { PictureRow } from '../db/scrapingModels.js';

/** The first picture of a list that is not kept here; undefined where all are. */
export async function pictureFault(pictures: readonly { readonly hash: string }[], transaction: Transaction): Promise<Fault | undefined> {
  const named = pictures.map(({ hash }) => hash);
  const kept = named.length ? await PictureRow.findAll({ where: { hash: { [Op.in]: named } }, attributes: ['hash'], transaction }) : [];
  const lost = named.findIndex((hash) => !kept.some((row) => row.hash === hash));
  return lost < 0
    ? undefined
    : { path: `pictures[${lost}].hash`, message: 'is not kept here', example: 'the name of a picture that was sent before' };
}
