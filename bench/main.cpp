// Measures Vole against a yardstick in the same run and prints how they compare: absolute times mean nothing
// on a machine that nobody else has. Each benchmark "x/vole" is set against "x/<yardstick>".
//
//   vole_bench                 all of them
//   vole_bench sprites         those whose name has "sprites" in it
//
// The two sides take turns, a short while each, so that what else the machine does troubles both alike. Printed is the
// median of the ratios of neighbours, with the range that holds the middle half of them.
#include <benchmark/benchmark.h>
#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <string>
#include <vector>

namespace {

constexpr int rounds = 15;

// Keeps the time of the last run of each benchmark, and the counters of ours.
class LastTimes final : public benchmark::BenchmarkReporter {
 public:
  bool ReportContext(const Context&) override { return true; }
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      if (run.run_type != Run::RT_Iteration || run.iterations == 0) continue;
      const bool by_hand = !run.run_name.time_type.empty();
      time = (by_hand ? run.real_accumulated_time : run.cpu_accumulated_time) /
             static_cast<double>(run.iterations);
      for (const auto& [name, value] : run.counters) counters[name] = value;
    }
  }
  double time = 0;
  std::map<std::string, double> counters;
};

// The names of all benchmarks.
class Names final : public benchmark::BenchmarkReporter {
 public:
  bool ReportContext(const Context&) override { return true; }
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) all.push_back(run.run_name.function_name);
  }
  std::vector<std::string> all;
};

double time_of(const std::string& name, std::map<std::string, double>& counters) {
  LastTimes times;
  std::string exact = "^";
  for (const char c : name)
    exact +=
        std::string("().+*?[]^$|\\").find(c) == std::string::npos ? std::string(1, c) : std::string("\\") + c;
  benchmark::RunSpecifiedBenchmarks(&times, exact + "($|/)");
  counters.insert(times.counters.begin(), times.counters.end());
  return times.time;
}

void compare(const std::string& what, const std::string& yardstick) {
  std::vector<double> ratios;
  std::map<std::string, double> counters, none;
  double ours = 0;
  for (int round = 0; round < rounds; ++round) {
    const bool first = round % 2 == 0;
    const double before = first ? time_of(what + "/vole", counters) : time_of(what + "/" + yardstick, none);
    const double after = first ? time_of(what + "/" + yardstick, none) : time_of(what + "/vole", counters);
    ours = first ? before : after;
    ratios.push_back((first ? after : before) / ours);
  }
  std::sort(ratios.begin(), ratios.end());
  std::string notes;
  for (const auto& [name, value] : counters) notes += fmt::format("  {} {:.0f}", name, value);
  fmt::print("{:<30} {:<14} {:>8.3f}   {:.3f} to {:.3f}   {:.1f} us{}\n", what, yardstick, ratios[rounds / 2],
             ratios[rounds / 4], ratios[rounds - 1 - rounds / 4], ours * 1e6, notes);
  std::fflush(stdout);
}

}  // namespace

int main(int argc, char** argv) {
  std::vector<std::string> words{argv[0], "--benchmark_min_time=0.03"};
  std::string wanted;
  for (int i = 1; i < argc; ++i) (argv[i][0] == '-' ? words.emplace_back(argv[i]) : wanted) = argv[i];
  std::vector<char*> pointers;
  for (std::string& word : words) pointers.push_back(word.data());
  int count = static_cast<int>(pointers.size());
  benchmark::Initialize(&count, pointers.data());
  if (benchmark::ReportUnrecognizedArguments(count, pointers.data())) return 2;
  // Running each once is how the library tells their names; what they need is then loaded, too.
  Names names;
  benchmark::RunSpecifiedBenchmarks(&names, wanted.empty() ? "." : wanted);
  fmt::print("{:<30} {:<14} {:>8}   {}   {}\n", "what", "against", "times as fast", "middle half", "ours");
  for (const std::string& name : names.all) {
    const std::size_t slash = name.rfind('/');
    const std::string what = name.substr(0, slash);
    const bool is_pair = std::find(names.all.begin(), names.all.end(), what + "/vole") != names.all.end();
    if (is_pair && name != what + "/vole") compare(what, name.substr(slash + 1));
  }
  return 0;
}
