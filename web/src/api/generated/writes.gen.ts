export default {
  "/api/systems/([0-9a-f-]{36})/visits/([0-9a-f-]{36})": "PUT",
  "/api/visits/([0-9a-f-]{36})/entries/([0-9a-f-]{36})": "PUT",
  "/api/visits/([0-9a-f-]{36})/photos/([0-9a-f-]{36})": "PUT",
  "/api/visits/([0-9a-f-]{36})/closed": "PUT",
  "/api/systems/([0-9a-f-]{36})": "PUT",
  "/api/systems/([0-9a-f-]{36})/decisions/([0-9a-f-]{36})": "PUT",
  "/api/systems/([0-9a-f-]{36})/retired": "PUT",
  "/api/workspaces/([0-9a-f-]{36})/sites/([0-9a-f-]{36})": "PUT",
  "/api/sites/([0-9a-f-]{36})": "PATCH",
  "/api/sites/([0-9a-f-]{36})/systems/([0-9a-f-]{36})": "PUT",
} as const
