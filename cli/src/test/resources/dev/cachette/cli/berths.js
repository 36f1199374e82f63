// The berth service in another language. Its flaws are named by the arguments.
const http = require("http");
const flaws = new Set(process.argv.slice(2));
let free = [];

function book(response) {
  const berth = free.shift();
  if (!berth) {
    const type = flaws.has("plain") ? "application/json" : "application/problem+json";
    response.writeHead(409, { "content-type": type });
    return JSON.stringify({ title: "no berth", status: flaws.has("text") ? "409" : 409 });
  }
  response.writeHead(201, { "content-type": "application/json", location: "/v1/bookings/7" });
  return JSON.stringify({
    [flaws.has("renamed") ? "place" : "berth"]: berth,
    from: "04:10",
    extra: { more: [1, "two"] },
  });
}

const server = http.createServer((request, response) => {
  let body = "";
  request.on("data", part => { body += part; }).on("end", () => {
    if (request.url === "/test/state") {
      const { state, parameters, when } = JSON.parse(body);
      free = when === "before" && state === "a berth is free" ? [parameters.berth] : [];
      response.writeHead(204).end();
    } else if (request.headers.authorization !== "Bearer valid") {
      response.writeHead(401, { "content-type": "application/json" }).end('{"error":"invalid token"}');
    } else {
      response.end(book(response));
    }
  });
});
server.listen(0, "127.0.0.1", () => console.log(server.address().port));
