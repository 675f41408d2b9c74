#include "formats/kept.h"

#include <fcntl.h>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <unistd.h>

#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "design/design.h"
#include "formats/comparison.h"
#include "formats/file.h"
#include "formats/project_file.h"

namespace talvik::formats {
namespace {

namespace fs = std::filesystem;

constexpr const char* ending = ".talvik-kept";

// A name for a path that differs for every path; FNV-1a, the same at every start.
std::string nameOf(const std::string& path) {
    std::uint64_t h = 14695981039346656037u;
    for (unsigned char c : path) h = (h ^ c) * 1099511628211u;
    return fmt::format("{:016x}", h);
}

}  // namespace

std::string stateFolder() {
    const char* state = std::getenv("XDG_STATE_HOME");
    const char* home = std::getenv("HOME");
    const fs::path folder = (state && *state ? fs::path(state)
                             : home && *home ? fs::path(home) / ".local" / "state"
                                             : fs::temp_directory_path()) /
                            "talvik";
    std::error_code trouble;
    fs::create_directories(folder, trouble);
    return folder.string();
}

KeepingPlace keepingPlace(const std::string& of, const std::string& name) {
    const fs::path p(of);
    fs::path begins = fs::path(stateFolder()) / (of.empty() ? "unnamed-" + name : "file-" + nameOf(of));
    if (!of.empty() && access(p.parent_path().c_str(), W_OK | X_OK) == 0)
        begins = p.parent_path() / ("." + p.filename().string());
    return {begins.string() + ending, begins.string() + ".talvik-lock"};
}

std::string keep(const KeepingPlace& place, const std::string& of, const std::string& projectText) {
    const std::time_t now = std::time(nullptr);
    nlohmann::json j{{"kept_of", of},
                     {"at", fmt::format("{:%Y-%m-%d %H:%M:%S}", fmt::localtime(now))},
                     {"project", projectText}};
    return writeFile(place.kept, j.dump(1, ' ', false, nlohmann::json::error_handler_t::replace) + "\n",
                     false);
}

bool readKept(const std::string& path, Kept& into) {
    std::error_code trouble;
    if (!fs::exists(path, trouble)) return false;
    const auto file = readFile(path);
    if (!file.error.empty()) return false;
    const auto j = nlohmann::json::parse(file.text, nullptr, false);
    if (!j.is_object()) return false;
    auto text = [&](const char* key) {
        const auto found = j.find(key);
        return found != j.end() && found->is_string() ? found->get<std::string>() : std::string();
    };
    auto read = readProject(text("project"));
    if (!read.trouble.empty()) return false;
    into = {path, text("kept_of"), text("at"), std::move(read.project)};
    return true;
}

std::vector<Kept> keptWithoutName() {
    std::vector<Kept> all;
    std::error_code trouble;
    for (const auto& entry : fs::directory_iterator(stateFolder(), trouble)) {
        const std::string path = entry.path().string();
        if (!path.ends_with(ending)) continue;
        const std::string lock = path.substr(0, path.size() - std::string(ending).size()) + ".talvik-lock";
        Lock mine(lock);
        if (!mine.held()) continue;  // someone is at it
        Kept one;
        const bool good = readKept(path, one);
        mine.remove();
        if (good) all.push_back(std::move(one));
    }
    std::sort(all.begin(), all.end(), [](const Kept& a, const Kept& b) { return a.path < b.path; });
    return all;
}

Lock::Lock(const std::string& path) : path_(path) {
    file_ = open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW, 0600);
    if (file_ >= 0 && flock(file_, LOCK_EX | LOCK_NB) != 0) {
        close(file_);
        file_ = -1;
    }
}
Lock::~Lock() {
    release();
}
Lock::Lock(Lock&& other) noexcept : path_(std::move(other.path_)), file_(std::exchange(other.file_, -1)) {}
Lock& Lock::operator=(Lock&& other) noexcept {
    if (this != &other) {
        release();
        path_ = std::move(other.path_), file_ = std::exchange(other.file_, -1);
    }
    return *this;
}
void Lock::release() {
    if (file_ >= 0) close(file_);
    file_ = -1;
}
void Lock::remove() {
    if (file_ >= 0) unlink(path_.c_str());
    release();
}

std::vector<std::string> whatDiffers(const model::Project& saved, const model::Project& kept,
                                     std::size_t most) {
    const design::Design none;
    const auto all = compare(saved, none, kept, none).inputs;
    std::vector<std::string> words;
    for (const auto& i : all) {
        if (words.size() == most) {
            words.push_back(fmt::format("and {} more", all.size() - most));
            break;
        }
        words.push_back(i.before.empty()  ? fmt::format("{}: {}, new", i.what, i.after)
                        : i.after.empty() ? fmt::format("{}: gone", i.what)
                                          : fmt::format("{}: {} → {}", i.what, i.before, i.after));
    }
    return words;
}

}  // namespace talvik::formats
