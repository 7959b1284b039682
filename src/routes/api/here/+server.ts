/** Whether the server is there; whose session it is stands in the header, as with every answer. */
export const GET = () => Response.json({ here: true });
