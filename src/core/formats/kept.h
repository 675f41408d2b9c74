// What is kept of a project that is not saved: a file beside the project's own, or in the user's state folder
// while it has no name or its folder takes no files. A lock tells whether someone is still at it: it goes
// with the process, however that ends.
#pragma once

#include <string>
#include <vector>

#include "model/project.h"

namespace talvik::formats {

struct Kept {
    std::string path;        // of this file
    std::string of;          // the project file; empty for one without a name
    std::string at;          // when, "2026-11-28 14:03:21", local time
    model::Project project;  // as it was
};

// Where a project file is kept and locked; `of` absolute, or empty, where `name` tells sessions apart.
struct KeepingPlace {
    std::string kept, lock;
};
KeepingPlace keepingPlace(const std::string& of, const std::string& name = {});
// The folder for what has no other: $XDG_STATE_HOME/talvik or ~/.local/state/talvik. Made where it is not
// there.
std::string stateFolder();

// Writes the file; a sentence where that fails.
std::string keep(const KeepingPlace& place, const std::string& of, const std::string& projectText);
// Empty where there is none that can be read; then `project` is of no use.
bool readKept(const std::string& path, Kept& into);
// Those without a name, or of files in folders that take none, that nobody is at.
std::vector<Kept> keptWithoutName();

// Holds a lock as long as it lives.
class Lock {
  public:
    Lock() = default;
    explicit Lock(const std::string& path);
    ~Lock();
    Lock(Lock&& other) noexcept;
    Lock& operator=(Lock&& other) noexcept;
    bool held() const { return file_ >= 0; }
    void remove();  // with its file

  private:
    std::string path_;
    int file_ = -1;
    void release();
};

// What the one has more or other than the other, in words, at most `most` of them and how many more.
std::vector<std::string> whatDiffers(const model::Project& saved, const model::Project& kept,
                                     std::size_t most);

}  // namespace talvik::formats
