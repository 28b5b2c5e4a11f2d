// Saves in a folder: what was confirmed is there, whatever happens to the program, the disk or the files.
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>

#include "support.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/saves/player_folder.hpp"
#include "vole/saves/save_folder.hpp"

namespace {

using vole::SaveFolder;
using vole::SaveHead;

std::string save_of(std::int64_t count, const std::string& holds = "",
                    const std::string& title = "The beds") {
  SaveHead head;
  head.game = "plot";
  head.title = title;
  head.time = "2026-12-02 10:31";
  head.count = count;
  return vole::save_text(head, "[values.purse]\ncoins = " + std::to_string(count) + "\n" + holds);
}

// One more than the save that is there.
void save_next(const SaveFolder& saves, std::string_view name, const std::string& holds = "") {
  saves.write(name, [&](const SaveHead* now) { return save_of(now ? now->count + 1 : 1, holds); });
}

std::int64_t coins_of(const vole::SaveFile& save) {
  return save.holds.find("values")->find("purse")->find("coins")->whole;
}

// Does it in a process of its own; returns its id.
template <class Work>
pid_t start(const Work& work) {
  const pid_t child = fork();
  REQUIRE(child >= 0);
  if (child != 0) return child;
  try {
    work();
  } catch (...) {
    _exit(1);
  }
  _exit(0);
}

int end_of(pid_t child) {
  int status = 0;
  waitpid(child, &status, 0);
  return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

// Whatever became of the files: what is read is one of the two saves, whole, or a sentence.
void expect_sound(const SaveFolder& saves) {
  try {
    const auto read = saves.read("slot");
    if (!read) return;
    const std::int64_t coins = coins_of(read->save);
    REQUIRE((coins == 1 || coins == 2));
    REQUIRE(read->save.head.count == coins);
    REQUIRE(read->problem.empty() == (coins == 2));
  } catch (const vole::Error& error) {
    REQUIRE(error.problems().size() == 1);
  }
}

}  // namespace

TEST_CASE("what is saved is read again, with the one before it beside it") {
  TempFolder folder;
  const SaveFolder saves(folder.path("kept"), "plot");
  CHECK_FALSE(saves.read("slot one"));
  CHECK(saves.list("").empty());
  save_next(saves, "slot one");
  save_next(saves, "slot two");
  save_next(saves, "slot one");
  save_next(saves, "value purse");
  CHECK(coins_of(saves.read("slot one")->save) == 2);
  CHECK(saves.read("slot one")->save.head.title == "The beds");
  // By count, and not by the clock, which may go back.
  const auto list = saves.list("slot");
  REQUIRE(list.size() == 2);
  CHECK(list[0].name == "slot one");
  CHECK(list[1].name == "slot two");
  CHECK(list[0].problem.empty());
  saves.remove("slot one");
  CHECK_FALSE(saves.read("slot one"));
  saves.remove("slot one");
  CHECK(saves.list("slot").size() == 1);
  // Nothing else lies about.
  for (const std::string& file : vole::list_files(folder.path("kept"))) CHECK(file.ends_with(".save"));
}

TEST_CASE("a flipped bit or a cut anywhere in a save is found, and the one before it is used") {
  TempFolder folder;
  const SaveFolder saves(folder.path(), "plot");
  save_next(saves, "slot");
  save_next(saves, "slot");
  const std::string file = folder.path("slot.save"), whole = vole::read_text(file, 1 << 20);
  for (std::size_t at = 0; at < whole.size(); ++at)
    for (int bit = 0; bit < 8; ++bit) {
      std::string changed = whole;
      changed[at] = static_cast<char>(changed[at] ^ (1 << bit));
      CHECK_THROWS_AS(vole::read_save(changed, "slot.save", "plot"), vole::Error);
      CHECK_THROWS_AS(vole::read_save_head(changed, "slot.save", "plot"), vole::Error);
    }
  for (std::size_t size = 0; size < whole.size(); size += 3) {
    folder.write("slot.save", whole.substr(0, size));
    const auto read = saves.read("slot");
    REQUIRE(read);
    REQUIRE(coins_of(read->save) == 1);
    REQUIRE(read->problem.find("so the one before it is used.") != std::string::npos);
    REQUIRE(saves.list("slot").front().problem == read->problem);
  }
  // What is damaged does not push out the last good one.
  save_next(saves, "slot");
  CHECK(coins_of(saves.read("slot")->save) == 2);
  folder.write("slot.save", "nothing");
  CHECK(coins_of(saves.read("slot")->save) == 1);
  // Where both are, it is said in one sentence, and the next save is as good as ever.
  folder.write("slot.before.save", "nothing");
  CHECK_THROWS_WITH(saves.read("slot"), Catch::Contains("is not a save of a game made with Vole"));
  CHECK(saves.list("slot").front().problem == "This save is not a save of a game made with Vole.");
  save_next(saves, "slot");
  CHECK(coins_of(saves.read("slot")->save) == 1);
}

TEST_CASE("saves of another game, from the future, too large, or of no such name are told in one sentence") {
  TempFolder folder;
  const SaveFolder saves(folder.path(), "plot");
  const auto told = [&](const std::string& text) {
    folder.write("slot.save", text);
    return error_of([&] { saves.read("slot"); }, folder);
  };
  SaveHead head;
  head.game = "weir";
  CHECK_THAT(told(vole::save_text(head, "")),
             Catch::Contains("is a save of the game \"weir\", and this is \"plot\""));
  head.game = "plot";
  head.format = 2;
  CHECK_THAT(told(vole::save_text(head, "")), Catch::Contains("a newer version of the game has written it"));
  // Neither is replaced: it may be the only one of another game, or of a newer one.
  CHECK_THROWS_WITH(save_next(saves, "slot"), Catch::Contains("a newer version of the game has written it"));
  head.game = "weir";
  head.format = 1;
  folder.write("slot.save", vole::save_text(head, ""));
  CHECK_THROWS_WITH(save_next(saves, "slot"), Catch::Contains("is a save of the game \"weir\""));
  CHECK_THAT(told(std::string(100 << 20, 'x')), Catch::Contains("the most for a file of this type"));
  for (const char* name : {"", "Slot", "a/b", "../a", " a", "a.", "con.", "a\nb"})
    CHECK_THROWS_WITH(saves.read(name), Catch::Contains("is no name of a save"));
  CHECK_THROWS_WITH(SaveFolder("", "plot").write("slot", [](const SaveHead*) { return std::string(); }),
                    Catch::Contains("no place"));
  save_next(saves, "slot");  // what is no save at all makes room
  CHECK(coins_of(saves.read("slot")->save) == 1);
  folder.write("a file", "");
  CHECK_THROWS_AS(save_next(SaveFolder(folder.path("a file/kept"), "plot"), "slot"), vole::Error);
}

TEST_CASE("what is confirmed can be read: a large save is, and what is larger than any is not written") {
  TempFolder folder;
  const SaveFolder saves(folder.path(), "plot");
  const auto list_of = [](int count) {
    std::string text = "list = [0";
    for (int i = 1; i < count; ++i) text += ",0";
    return text + "]\n";
  };
  save_next(saves, "slot", list_of(600'000));
  CHECK(saves.read("slot")->save.holds.find("values")->find("purse")->find("list")->items.size() == 600'000);
  CHECK_THROWS_WITH(save_next(saves, "slot", list_of(2'000'001)),
                    Catch::Contains("more than 2000000 values"));
  CHECK_THROWS_WITH(save_next(saves, "slot", "text = \"" + std::string(64 << 20, 'a') + "\"\n"),
                    Catch::Contains("it would be larger than 67108864 bytes"));
  CHECK(coins_of(saves.read("slot")->save) == 1);
}

TEST_CASE("a save of the first format is read as long as there are games") {
  // Its sum was counted by another program: FNV-1a of 64 bits, over the length as eight bytes and then the bytes.
  const std::string kept =
      "# A save of a game made with Vole. A change by hand makes it useless.\n"
      "sum = \"578363d91ad0603d\"\n"
      "format = 1\ngame = \"plot\"\nversion = 1\ntitle = \"The beds\"\ntime = \"2026-12-02 10:31\"\n"
      "count = 17\npicture = \"\"\n\n[values.purse]\ncoins = 12\n";
  const vole::SaveFile save = vole::read_save(kept, "slot.save", "plot");
  CHECK(save.head.title == "The beds");
  CHECK(save.head.count == 17);
  CHECK(save.lines == "[values.purse]\ncoins = 12\n");
  CHECK(coins_of(save) == 12);
}

TEST_CASE("killed at any moment of saving, what was confirmed is there") {
  TempFolder folder;
  vole::Random chance(9);
  const SaveFolder saves(folder.path(), "plot");
  std::int64_t confirmed = 0;
  int with_one = 0;
  // Long enough that it is written in several parts.
  const std::string holds = "text = \"" + std::string(200'000, 'a') + "\"\n";
  for (int round = 0; round < cases(1000, 100); ++round) {
    int pipe_ends[2];
    REQUIRE(pipe(pipe_ends) == 0);
    const pid_t child = start([&] {
      for (;;) {
        std::int64_t count = 0;
        saves.write("slot",
                    [&](const SaveHead* now) { return save_of(count = now ? now->count + 1 : 1, holds); });
        if (write(pipe_ends[1], &count, sizeof count) != sizeof count) _exit(2);
      }
    });
    close(pipe_ends[1]);
    // Most of them when they have confirmed one, however slow the machine is.
    std::int64_t first = 0;
    if (chance.chance(0.7f) && read(pipe_ends[0], &first, sizeof first) == sizeof first) {
      confirmed = first;
      ++with_one;
    }
    usleep(static_cast<useconds_t>(below(chance, 4000)));
    kill(child, SIGKILL);
    end_of(child);
    for (std::int64_t count = 0; read(pipe_ends[0], &count, sizeof count) == sizeof count;) confirmed = count;
    close(pipe_ends[0]);
    if (confirmed == 0) continue;
    const auto there = saves.read("slot");
    REQUIRE(there);
    REQUIRE(there->problem.empty());
    REQUIRE(there->save.head.count >= confirmed);
    REQUIRE(coins_of(there->save) == there->save.head.count);
    confirmed = there->save.head.count;
  }
  CHECK(with_one > cases(500, 50));
  CHECK(confirmed >= with_one);
}

TEST_CASE("two copies of a game save one after the other, and none of it is lost") {
  TempFolder folder;
  const SaveFolder saves(folder.path(), "plot");
  const int times = cases(200, 50);
  const auto save_often = [&] {
    for (int i = 0; i < times; ++i) save_next(saves, "slot");
  };
  const pid_t first = start(save_often), second = start(save_often);
  CHECK(end_of(first) == 0);
  CHECK(end_of(second) == 0);
  CHECK(saves.read("slot")->save.head.count == 2 * times);
}

TEST_CASE("on a full disk a save fails with a sentence, and what was there stays") {
  TempFolder folder;
  const SaveFolder saves(folder.path(), "plot");
  save_next(saves, "slot");
  save_next(saves, "slot");
  const pid_t child = start([&] {
    std::signal(SIGXFSZ, SIG_IGN);
    const rlimit few{1000, 1000};
    setrlimit(RLIMIT_FSIZE, &few);
    try {
      save_next(saves, "slot", "text = \"" + std::string(5000, 'a') + "\"\n");
    } catch (const vole::Error&) {
      _exit(7);
    }
  });
  CHECK(end_of(child) == 7);
  CHECK(coins_of(saves.read("slot")->save) == 2);
  CHECK(vole::list_files(folder.path()).size() == 2);
}

TEST_CASE("files of any content in the folder never pass for a save") {
  TempFolder folder;
  vole::Random chance(21);
  const SaveFolder saves(folder.path(), "plot");
  save_next(saves, "slot");
  save_next(saves, "slot");
  const std::string newest = vole::read_text(folder.path("slot.save"), 1 << 20),
                    before = vole::read_text(folder.path("slot.before.save"), 1 << 20);
  for (int round = 0; round < cases(2000, 200); ++round) {
    CAPTURE(round);
    for (const auto& [name, text] : {std::pair("slot.save", newest), std::pair("slot.before.save", before)}) {
      std::string changed = text;
      for (int i = below(chance, 3); i > 0; --i) {
        const auto at = static_cast<std::size_t>(below(chance, static_cast<int>(changed.size())));
        switch (below(chance, 3)) {
          case 0:
            changed[at] = static_cast<char>(below(chance, 256));
            break;
          case 1:
            changed.erase(at, static_cast<std::size_t>(below(chance, 20)));
            break;
          default:
            changed.insert(at, changed.substr(0, static_cast<std::size_t>(below(chance, 40))));
        }
        if (changed.empty()) break;
      }
      folder.write(name, changed);
    }
    expect_sound(saves);
  }
}
