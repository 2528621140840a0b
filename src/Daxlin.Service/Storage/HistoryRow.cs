using Daxlin.Core.History;

namespace Daxlin.Service.Storage;

/// <summary>An entry of the history. Only ever added.</summary>
public sealed class HistoryRow
{
    public int Id { get; set; }
    public required string Stream { get; set; }

    /// <summary>Its place in its stream, from 1.</summary>
    public int Number { get; set; }

    public required DateTime At { get; set; }
    public required string By { get; set; }
    public required string Act { get; set; }
    public required string What { get; set; }
    public string Before { get; set; } = "";
    public string After { get; set; } = "";
    public string Reason { get; set; } = "";
    public string Letter { get; set; } = "";
    public string Content { get; set; } = "";
    public required string Hash { get; set; }

    public HistoryEntry Entry() => new(
        Id, Number, new Deed(Stream, At, By, Act, What) { Before = Before, After = After, Reason = Reason, Letter = Letter, Content = Content }, Hash);
}
