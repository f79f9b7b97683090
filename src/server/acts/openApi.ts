import { z } from "zod";
import { isGiven } from "../../core/access/access";
import { ENGINE_VERSION } from "../../core/version";
import { LISTS } from "../lists/lists";
import { ACTS } from "./acts";

/**
 * What programs may ask and do here, as OpenAPI 3.1 has it: made from the schemas that read what comes in, so that it says
 * what is so.
 */
export function openApi(origin: string): object {
  return {
    openapi: "3.1.0",
    info: {
      title: "Heavy Lantern",
      version: ENGINE_VERSION,
      description:
        "Isolations, permits and their record. A token opens what it was made for and signs nothing: an act that asks for a PIN asks for it still.",
    },
    servers: [{ url: origin }],
    security: [{ token: [] }],
    paths: { ...actPaths(), ...listPaths(), ...otherPaths() },
    components: {
      securitySchemes: { token: { type: "http", scheme: "bearer" } },
      schemas: { Done: DONE, Refused: REFUSED },
    },
  };
}

const DONE = {
  type: "object",
  required: ["ok", "answer"],
  properties: {
    ok: { const: true },
    answer: {
      type: "object",
      description: "Numbers of what was made, and what was done in words.",
      additionalProperties: { type: ["string", "number", "null"] },
    },
    once: {
      type: "object",
      description: "What is told once and kept nowhere.",
      additionalProperties: { type: "string" },
    },
  },
};

const REFUSED = {
  type: "object",
  description: "Nothing was changed.",
  required: ["ok", "code", "sentence"],
  properties: {
    ok: { const: false },
    code: { type: "string" },
    sentence: { type: "string", description: "Why, and what to do." },
    field: { type: "string" },
    status: { type: "integer" },
  },
};

const json = (schema: object) => ({ content: { "application/json": { schema } } });
const refused = (description: string) => ({
  description,
  ...json({ $ref: "#/components/schemas/Refused" }),
});

function actPaths(): Record<string, object> {
  const given = [...ACTS.values()].filter(({ type }) => isGiven(type));
  return Object.fromEntries(
    given.map((act) => {
      const { $schema: _, ...input } = z.toJSONSchema(act.input, { io: "input", unrepresentable: "any" });
      const body = {
        type: "object",
        required: ["actId", "input", ...(act.pin ? ["pin"] : [])],
        properties: {
          actId: {
            type: "string",
            format: "uuid",
            description: "Made once for what is meant to be done: sent again, it is answered again and not done twice.",
          },
          input,
          ...(act.pin ? { pin: { type: "string", description: "Of the token's owner, who signs." } } : {}),
        },
      };
      const post = {
        operationId: act.type,
        summary: `${act.words[0]!.toUpperCase()}${act.words.slice(1)}`,
        description: act.roles.length > 0 ? `For: ${act.roles.join(", ")}.` : "For everybody; what is there decides.",
        tags: [act.type.split(".")[0]!],
        requestBody: { required: true, ...json(body) },
        responses: {
          200: { description: "Done.", ...json({ $ref: "#/components/schemas/Done" }) },
          400: refused("Not understood."),
          401: refused("No token, or one that counts no more."),
          403: refused("Not for this token, not theirs to do, or the PIN is wrong."),
          409: refused("Refused, by what is there."),
          503: refused("Not now."),
        },
      };
      return [`/api/acts/${act.type}`, { post }];
    }),
  );
}

function listPaths(): Record<string, object> {
  return Object.fromEntries(
    LISTS.map((list) => [
      `/lists/${list}.csv`,
      {
        get: {
          operationId: `list.${list}`,
          summary: `${list[0]!.toUpperCase()}${list.slice(1)} as a table, as they stand now`,
          tags: ["lists"],
          responses: {
            200: { description: "Headings first.", content: { "text/csv": { schema: { type: "string" } } } },
            401: { description: "No token, or one that counts no more." },
            403: { description: "Not for this token, or not for its owner." },
          },
        },
      },
    ]),
  );
}

function otherPaths(): Record<string, object> {
  return {
    "/api/health": {
      get: {
        operationId: "health",
        summary: "Whether the server answers, its record goes on and there is room",
        security: [],
        tags: ["site"],
        responses: {
          200: { description: "All is well.", ...json({ type: "object" }) },
          503: { description: "Something is not, and what.", ...json({ type: "object" }) },
        },
      },
    },
    "/api/jobs/{number}": {
      get: {
        operationId: "job",
        summary: "A job as it stands: hazards, isolation step by step, permits, what is next",
        tags: ["site"],
        parameters: [{ name: "number", in: "path", required: true, schema: { type: "string" } }],
        responses: {
          200: { description: "As it stands at this moment.", ...json({ type: "object" }) },
          401: refused("No token, or one that counts no more."),
          403: refused("Not for this token, or not for its owner."),
          404: refused("There is none of that number."),
        },
      },
    },
    "/api/calendar/{token}.ics": {
      get: {
        operationId: "calendar",
        summary: "Validity, retests, reviews, inspections and dates as a calendar; the address is the token",
        security: [],
        tags: ["site"],
        parameters: [{ name: "token", in: "path", required: true, schema: { type: "string" } }],
        responses: {
          200: { description: "RFC 5545.", content: { "text/calendar": { schema: { type: "string" } } } },
          401: { description: "It opens no calendar, or no more." },
        },
      },
    },
  };
}
