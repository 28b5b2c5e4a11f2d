// Every loader against thousands of damaged files: whatever comes, it is a file or an Error.
#include "fuzz/targets.hpp"
#include "support.hpp"

namespace {

// Values that have broken loaders before.
constexpr std::string_view nasty[] = {"nan",
                                      "-inf",
                                      "-1",
                                      "0",
                                      "99999999999999999999",
                                      "1e400",
                                      "\"\"",
                                      "[]",
                                      "{}",
                                      "[[",
                                      "]]",
                                      "=",
                                      "\"\"\"",
                                      "\xff\xfe",
                                      "\\u0000",
                                      "2147483647",
                                      "-9223372036854775808",
                                      "true",
                                      "1979-05-27T07:32:00Z",
                                      "''",
                                      "\0"};

std::string damaged(std::string bytes, vole::Random& chance) {
  for (std::uint32_t times = chance.below(4) + 1; times > 0 && !bytes.empty(); --times) {
    const std::size_t at = chance.below(static_cast<std::uint32_t>(bytes.size()));
    const std::size_t length = std::min<std::size_t>(chance.below(12), bytes.size() - at);
    switch (chance.below(6)) {
      case 0:
        bytes[at] = static_cast<char>(chance.next());
        break;
      case 1:
        bytes.erase(at, length);
        break;
      case 2:
        bytes.insert(at, bytes.substr(chance.below(static_cast<std::uint32_t>(bytes.size())), 20));
        break;
      case 3:
        bytes.replace(at, length, nasty[chance.below(static_cast<std::uint32_t>(std::size(nasty)))]);
        break;
      case 4:
        bytes.resize(at);
        break;
      default: {
        // A number in the text becomes another.
        const std::size_t digit = bytes.find_first_of("0123456789", at);
        if (digit != std::string::npos) bytes.replace(digit, 1, nasty[chance.below(8)]);
      }
    }
  }
  return bytes;
}

}  // namespace

TEST_CASE("no damaged file crashes, hangs or throws anything but an Error") {
  for (const FuzzTarget& target : fuzz_targets()) {
    DYNAMIC_SECTION(target.name) {
      vole::Random chance(99);
      const std::string sample = sample_of(target);
      REQUIRE_NOTHROW(target.load(sample));
      for (int round = 0; round < 1500; ++round) {
        const std::string bytes = damaged(sample, chance);
        CAPTURE(round, bytes);
        REQUIRE_NOTHROW(load_once(target, bytes));
      }
    }
  }
}
