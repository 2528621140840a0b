using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Daxlin.Core.Sources;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Sources.Folders;

/// <summary>Moves a file that was taken out of the way, with a note beside it if anything of it was left out.</summary>
internal static class PuttingAway
{
    /// <exception cref="SourceTroubleException">It cannot be moved. It was taken, and is not taken again.</exception>
    public static void Put(FolderSource way, string relative, SourceItem item)
    {
        var from = Path.Combine(way.Path, relative);
        var parts = JsonSerializer.Deserialize<ImmutableArray<SourcePart>>(item.Parts, JsonSerializerOptions.Web);
        var isTaken = parts.Any(part => part.Outcome != "left-out");
        try
        {
            var to = Free(Path.Combine(way.Path, isTaken ? FolderSource.Done : FolderSource.SetAside, relative));
            MakeLike(Path.GetDirectoryName(to)!, way.Path);
            File.Move(from, to);
            if (item.LeftOut > 0)
                WriteNote(to + ".note.txt", relative, item, parts);
        }
        catch (FileNotFoundException)
        {
            // Somebody else has put it away.
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new SourceTroubleException($"The file {from} was taken in and cannot be put away: {error.Message} It is not taken again; let Daxlin write to {way.Path}, or say \"after\": \"leave\".", error);
        }
    }

    /// <summary>A name that is not taken: galley (2).pdf.</summary>
    private static string Free(string path)
    {
        for (var number = 2; ; number++)
        {
            if (!File.Exists(path))
                return path;
            var (folder, name) = (Path.GetDirectoryName(path)!, Path.GetFileNameWithoutExtension(path));
            if (number > 2)
                name = name[..name.LastIndexOf(" (", StringComparison.Ordinal)];
            path = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{name} ({number}){Path.GetExtension(path)}"));
        }
    }

    /// <summary>Makes a folder that those may enter who may enter the source's: they put files into that one, and look for them here.</summary>
    private static void MakeLike(string folder, string like)
    {
        if (Directory.Exists(folder))
            return;
        MakeLike(Path.GetDirectoryName(folder)!, like);
        Directory.CreateDirectory(folder);
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(folder, File.GetUnixFileMode(like));
    }

    private static void WriteNote(string path, string relative, SourceItem item, ImmutableArray<SourcePart> parts)
    {
        var note = new StringBuilder().AppendLine(CultureInfo.InvariantCulture, $"{relative}, looked at on {item.At:yyyy-MM-dd HH:mm} UTC:");
        foreach (var part in parts)
            note.AppendLine(CultureInfo.InvariantCulture, $"- {part.Name}: {(part.Outcome == "taken" ? "taken in" : part.Outcome is "already-here" or "cover" ? part.Reason : $"left out. {part.Reason}")}");
        File.WriteAllText(path, note.ToString());
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(path, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.GroupRead | UnixFileMode.OtherRead);
    }
}
