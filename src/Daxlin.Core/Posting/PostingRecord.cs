using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting;

/// <summary>One record of a posting run: an item row, say, with the header values of its invoice behind it.</summary>
/// <param name="Cells">Its own values by name; one that it has no value for is absent.</param>
/// <param name="Behind">What is asked for a name that is not among its own; null for nothing.</param>
/// <remarks>A run has hundreds of thousands of rows, so what all rows of an invoice share is kept once.</remarks>
public sealed record PostingRecord(IReadOnlyDictionary<string, string> Cells, PostingRecord? Behind = null)
{
    /// <summary>The value of a name, empty if there is none.</summary>
    public string this[string name] => Cells.TryGetValue(name, out var value) ? value : Behind?[name] ?? "";

    /// <summary>Values with the other sign on amounts and quantities; prices and rates stay, so that quantity × price is still the amount.</summary>
    internal static Dictionary<string, string> Reversed(IReadOnlyDictionary<string, string> cells) => cells.ToDictionary(cell => cell.Key, cell =>
        (cell.Key == TradeNames.Quantity || TradeNames.KindOf(cell.Key) == ValueKind.Money) && ExpressionType.Number.Read(cell.Value) is decimal number
            ? ExpressionTypes.Settled(-number) : cell.Value);
}
