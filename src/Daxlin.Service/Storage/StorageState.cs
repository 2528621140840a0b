namespace Daxlin.Service.Storage;

/// <summary>What is wrong with the storage at the moment, for /health and the console.</summary>
public sealed class StorageState(DataFolder folder)
{
    /// <summary>Enough for a page of the database and a line of the log.</summary>
    private const int Room = 256 << 10;

    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(1);

    private volatile Trouble? trouble;

    /// <summary>Null if all is well.</summary>
    public Trouble? Current => trouble;

    public void Report(string code, string sentence) => trouble = new(code, sentence);

    public void Clear() => trouble = null;

    /// <summary>The database has taken a change: a trouble that is over with that is taken back, any other stays.</summary>
    public void TookChange()
    {
        if (trouble is { } now && StorageFaults.IsOverWithChange(now.Code))
            Clear();
    }

    /// <summary>Waits until the disk has room again, saying so meanwhile.</summary>
    public async Task UntilThereIsRoom(CancellationToken cancel)
    {
        if (StorageFaults.Of(new IOException("full", StorageFaults.NoSpace)) is var (_, code, sentence))
            Report(code, sentence);
        while (!HasRoom())
            await Task.Delay(BetweenLooks, cancel);
        Clear();
    }

    private bool HasRoom()
    {
        var part = folder.NewPart();
        try
        {
            File.WriteAllBytes(part, new byte[Room]);
            return true;
        }
        catch (IOException)
        {
            return false;
        }
        finally
        {
            File.Delete(part);
        }
    }

    public sealed record Trouble(string Code, string Sentence);
}
