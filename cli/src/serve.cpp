#include "serve.hpp"

#include <fmt/core.h>
#include <httplib.h>

#include <cstdio>

#include "vole/base/error.hpp"

void serve_folder(const std::string& folder) {
  httplib::Server server;
  server.set_file_extension_and_mimetype_mapping("wasm", "application/wasm");
  server.set_file_extension_and_mimetype_mapping("js", "text/javascript");
  server.set_file_extension_and_mimetype_mapping("tar", "application/x-tar");
  // So that a page that was made again is loaded again.
  server.set_default_headers({{"Cache-Control", "no-store"}});
  server.set_mount_point("/", folder);
  const int port = server.bind_to_any_port("127.0.0.1");
  if (port < 0)
    throw vole::Error(vole::FilePosition::whole_file(folder),
                      "cannot be served: no port of this machine is free");
  fmt::print("http://127.0.0.1:{}/ until Ctrl-C\n", port);
  std::fflush(stdout);
  server.listen_after_bind();
}
