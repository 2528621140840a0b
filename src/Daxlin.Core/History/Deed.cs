namespace Daxlin.Core.History;

/// <summary>Something that was done, as the history tells it.</summary>
/// <param name="Stream">Of what it is told; see <see cref="HistoryStreams"/>.</param>
/// <param name="At">When, in UTC.</param>
/// <param name="By">Who did it; <see cref="Daxlin"/> for what the service does by itself.</param>
/// <param name="Act">A stable word for programs: captured, corrected, approved.</param>
/// <param name="What">The same in words: "corrected total".</param>
public sealed record Deed(string Stream, DateTime At, string By, string Act, string What)
{
    public const string Daxlin = "Daxlin";

    /// <summary>What stood there before; empty where nothing did.</summary>
    public string Before { get; init; } = "";

    public string After { get; init; } = "";
    public string Reason { get; init; } = "";

    /// <summary>What the vendor was told; empty where nothing was.</summary>
    public string Letter { get; init; } = "";

    /// <summary>The SHA-256, in hexadecimal letters, of what it was done to or came to: a record, a document, a file. Empty for none.</summary>
    public string Content { get; init; } = "";
}
