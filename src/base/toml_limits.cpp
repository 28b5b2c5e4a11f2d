#include "toml_limits.hpp"

#include <fmt/core.h>

namespace vole {
namespace {

// Goes through the text once. It knows texts and comments, so that brackets in them count nothing, and no more of
// TOML: what is no TOML at all is for the parser to report.
class LimitCheck {
 public:
  LimitCheck(std::string_view text, const std::shared_ptr<const std::string>& file, int most_values)
      : text_(text), file_(file), most_values_(most_values) {}

  void run() {
    while (at_ < text_.size()) {
      const char c = text_[at_];
      if (c == '"' || c == '\'') {
        skip_text(c);
        continue;
      }
      if (c == '#') {
        at_ = std::min(text_.find('\n', at_), text_.size());
        continue;
      }
      count(c);
      advance();
    }
  }

 private:
  void count(char c) {  // of what is neither text nor comment
    switch (c) {
      case '[':
      case '{':
        key_parts_ = 1;
        if (++nesting_ > most_toml_nesting)
          fail(fmt::format("more than {} lists and tables within each other", most_toml_nesting));
        break;
      case ']':
      case '}':
        nesting_ = std::max(0, nesting_ - 1);
        break;
      case '.':
        count_value();
        if (++key_parts_ > most_toml_key_parts)
          fail(fmt::format("a key of more than {} parts", most_toml_key_parts));
        break;
      case '=':
      case ',':
        count_value();
        key_parts_ = 1;
        break;
      case '\n':
        key_parts_ = 1;
        break;
      default:
        break;
    }
  }

  void count_value() {
    if (++values_ > most_values_) fail(fmt::format("more than {} values in one file", most_values_));
  }

  // From a quote to behind the one that closes it; three of them enclose several lines.
  void skip_text(char quote) {
    const std::string three(3, quote);
    const bool long_text = text_.substr(at_).starts_with(three);
    for (int i = long_text ? 3 : 1; i > 0; --i) advance();
    while (at_ < text_.size()) {
      const char c = text_[at_];
      if (c == '\\' && quote == '"' && at_ + 1 < text_.size()) {
        advance();
      } else if (long_text ? text_.substr(at_).starts_with(three) : c == quote) {
        for (int i = long_text ? 3 : 1; i > 0; --i) advance();
        return;
      } else if (!long_text && c == '\n') {
        return;
      }
      advance();
    }
  }

  void advance() {
    if (text_[at_++] != '\n') return;
    ++line_;
    line_start_ = at_;
  }

  [[noreturn]] void fail(const std::string& text) const {
    throw Error({file_, line_, static_cast<int>(at_ - line_start_) + 1}, text);
  }

  std::string_view text_;
  const std::shared_ptr<const std::string>& file_;
  int most_values_;
  std::size_t at_ = 0;
  std::size_t line_start_ = 0;
  int line_ = 1;
  int nesting_ = 0;
  int key_parts_ = 1;
  int values_ = 0;
};

}  // namespace

void check_toml_limits(std::string_view text, const std::shared_ptr<const std::string>& file,
                       int most_values) {
  LimitCheck(text, file, most_values).run();
}

}  // namespace vole
