/** Whether marks of a supply's shape stand for a ground. */
export const isGround = (shape: string) => ['ground', 'earth', 'chassis'].includes(shape)
