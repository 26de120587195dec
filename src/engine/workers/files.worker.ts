// Looks into files and packs them, apart from the decoder that plays: a file that never ends only stops this worker, which is then replaced.
import * as Comlink from 'comlink';
import type { Project } from '../../core/document/schema';
import { readProjectFile, writeProjectFile, type OpenedProject } from '../../core/formats/project-file';
import { carryErrors } from '../thrown';
import type { Probe } from '../types';
import { glance, probe } from './probe';

carryErrors();

const api = {
  probe: (file: File, progress: (share: number) => void): Promise<Probe> => probe(file, progress),

  glance: (file: File): Promise<Pick<Probe, 'poster' | 'peaks'>> => glance(file),

  /** What a project file holds, its media by stock id. @throws JackplaneError bad-project */
  unpack: (file: File): Promise<OpenedProject> => readProjectFile(file, file.name),

  /** A project file of a project and its media by stock id. */
  pack: (project: Project, media: ReadonlyMap<string, Blob>): Promise<Blob> => writeProjectFile(project, media),
};

export type FilesApi = typeof api;
Comlink.expose(api);
