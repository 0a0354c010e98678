import type { Project } from '@/shared/api/client'

/** A project's fabrics to choose from; ``held`` stays among them where no fabric has that letter. */
export const fabricOptions = (project: Project, held?: string) => [
  ...(held === undefined || project.fabrics.some((f) => f.role === held)
    ? []
    : [{ value: held, label: 'no fabric yet' }]),
  ...project.fabrics.map((f) => ({ value: f.role, label: f.name })),
]
