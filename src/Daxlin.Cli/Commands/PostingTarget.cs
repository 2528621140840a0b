namespace Daxlin.Cli.Commands;

/// <summary>Where the files of a posting run go: into one file, or a folder; nowhere if neither is said.</summary>
internal sealed class PostingTarget(string? file, string? folder)
{
    private readonly List<string> written = [];

    /// <summary>What was written, behind a sentence's last word.</summary>
    public string Written => written.Count == 0 ? "" : $", written to {string.Join(", ", written)}";

    /// <summary>Tries the place before anything is posted; what is returned clears away what the trial left.</summary>
    public IDisposable Tried()
    {
        if (file is null && folder is null)
            return new Left(null);
        var part = file is not null ? file + ".part" : Path.Combine(folder!, "posting.part");
        try
        {
            if (folder is not null)
                Directory.CreateDirectory(folder);
            File.WriteAllBytes(part, []);
            return new Left(part);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new RefusedException($"{file ?? folder} cannot be written, so nothing was posted. Is there such a folder, and may you write to it?", exitCode: ExitCodes.WrongUsage);
        }
    }

    public async Task Write(int run, CommandContext context, CancellationToken cancel)
    {
        if (file is null && folder is null)
            return;
        var files = (await context.Service.Get($"posting-runs/{run}/manifest", cancel))["files"]!.AsArray().Select(one => Shown.Text(one!["name"])).ToList();
        if (file is not null && files.Count > 1)
        {
            throw new RefusedException(
                $"Run {run} has {files.Count} files, and --out names one. They are kept: posting file {run} --into FOLDER writes them.", exitCode: ExitCodes.WrongUsage);
        }
        foreach (var name in files)
        {
            var place = file ?? Path.Combine(folder!, Path.GetFileName(name));
            await File.WriteAllBytesAsync(place + ".part", await context.Service.Download($"posting-runs/{run}/files/{Uri.EscapeDataString(name)}", cancel), cancel);
            File.Move(place + ".part", place, overwrite: true);
            written.Add(place);
        }
    }

    private sealed class Left(string? part) : IDisposable
    {
        public void Dispose()
        {
            if (part is not null)
                File.Delete(part);
        }
    }
}
