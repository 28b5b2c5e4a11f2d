// Measures Vole against a yardstick in the same run and prints how they compare: absolute times mean nothing
// on a machine that nobody else has. Each benchmark "x/vole" is set against "x/<yardstick>".
#include <benchmark/benchmark.h>
#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <string>
#include <vector>

namespace {

// Prints as usual, and keeps the fastest time of each benchmark: the least disturbed one.
class RatioReporter final : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs) {
      if (run.run_type != Run::RT_Iteration || run.iterations == 0) continue;
      const std::string name = run.run_name.function_name;
      const double time = run.cpu_accumulated_time / static_cast<double>(run.iterations);
      const auto known = fastest_.find(name);
      fastest_[name] = known == fastest_.end() ? time : std::min(known->second, time);
    }
  }

  void print_ratios() const {
    fmt::print("\n{:<28} {:<12} {}\n", "what", "against", "times as fast as the yardstick");
    for (const auto& [name, time] : fastest_) {
      const std::size_t slash = name.rfind('/');
      const std::string what = name.substr(0, slash);
      const auto ours = fastest_.find(what + "/vole");
      if (ours == fastest_.end() || name == ours->first) continue;
      fmt::print("{:<28} {:<12} {:.2f}\n", what, name.substr(slash + 1), time / ours->second);
    }
  }

 private:
  std::map<std::string, double> fastest_;
};

}  // namespace

int main(int argc, char** argv) {
  // Many short repetitions in mixed order, of which the fastest counts: what else the machine does then
  // troubles both sides alike. Words of the command line come later and win.
  std::vector<std::string> words{argv[0], "--benchmark_repetitions=9", "--benchmark_min_time=0.1",
                                 "--benchmark_enable_random_interleaving=true"};
  words.insert(words.end(), argv + 1, argv + argc);
  std::vector<char*> pointers;
  for (std::string& word : words) pointers.push_back(word.data());
  int count = static_cast<int>(pointers.size());
  benchmark::Initialize(&count, pointers.data());
  if (benchmark::ReportUnrecognizedArguments(count, pointers.data())) return 2;
  RatioReporter reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  reporter.print_ratios();
  return 0;
}
