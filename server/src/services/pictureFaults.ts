import { Op, type Transaction } from 'sequelize';
import type { Fault } from '@isometra/core';
import { PictureRow } from '../db/scrapingModels.js';

/** Names of pictures that are not kept here. */
export async function lostPictures(names: readonly string[], transaction: Transaction): Promise<ReadonlySet<string>> {
  const kept = names.length
    ? await PictureRow.findAll({ where: { hash: { [Op.in]: [...names] } }, attributes: ['hash'], transaction })
    : [];
  return new Set(names.filter((name) => !kept.some((row) => row.hash === name)));
}

/** The first picture of a list that is not kept here; undefined where all are. */
export async function pictureFault(pictures: readonly { readonly hash: string }[], transaction: Transaction): Promise<Fault | undefined> {
  const missing = await lostPictures(
    pictures.map(({ hash }) => hash),
    transaction,
  );
  const lost = pictures.findIndex(({ hash }) => missing.has(hash));
  return lost < 0
    ? undefined
    : { path: `pictures[${lost}].hash`, message: 'is not kept here', example: 'the name of a picture that was sent before' };
}
