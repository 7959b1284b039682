import { openApi } from '$core/calc/openapi';

export const GET = () => Response.json(openApi('1'));
