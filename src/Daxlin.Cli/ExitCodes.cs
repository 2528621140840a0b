namespace Daxlin.Cli;

/// <summary>What a command's exit code says.</summary>
internal static class ExitCodes
{
    public const int Done = 0;

    /// <summary>Done, and there is something to look at: held invoices, files set aside.</summary>
    public const int SomethingToLookAt = 1;

    public const int WrongUsage = 2;
    public const int Refused = 3;
}
