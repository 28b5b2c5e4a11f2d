// libFuzzer's entry; the loader is chosen by VOLE_FUZZ_TARGET, as in
//   VOLE_FUZZ_TARGET=level vole_fuzz -max_total_time=60
#include <cstdio>
#include <cstdlib>

#include "targets.hpp"

namespace {

const FuzzTarget& chosen() {
  const char* name = std::getenv("VOLE_FUZZ_TARGET");
  for (const FuzzTarget& target : fuzz_targets())
    if (name && target.name == name) return target;
  std::fprintf(stderr, "VOLE_FUZZ_TARGET is one of:");
  for (const FuzzTarget& target : fuzz_targets()) std::fprintf(stderr, " %s", target.name.c_str());
  std::fprintf(stderr, "\n");
  std::exit(2);
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const FuzzTarget& target = chosen();
  load_once(target, {reinterpret_cast<const char*>(data), size});
  return 0;
}

// Half of the time a good file is mixed in, so that the fuzzer need not find the format by itself.
extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);
extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most,
                                               unsigned seed) {
  static const std::string sample = sample_of(chosen());
  if (size < 4 && sample.size() <= most && seed % 2 == 0) {
    std::copy(sample.begin(), sample.end(), data);
    size = sample.size();
  }
  return LLVMFuzzerMutate(data, size, most);
}
