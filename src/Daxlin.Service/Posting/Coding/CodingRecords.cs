using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;
using Daxlin.Service.Invoices;
using Daxlin.Service.Review;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Puts codes into the interface's form and back.</summary>
internal static class CodingRecords
{
    public static CodedByHandRecord Of(int line, SaidCoding said, string by, DateTime at) =>
        new(line, SharesOf(said), by, at);

    public static ImmutableArray<SaidShareRecord> SharesOf(SaidCoding said) => [.. said.Shares.Select(share => new SaidShareRecord(Text(share.Part), share.Codes))];

    /// <remarks>What a request leaves out is no part and no codes, and refused as such.</remarks>
    public static SaidShare Of(SaidShareRecord? share) => new(
        decimal.TryParse(share?.Part, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var part) ? part : 0,
        share?.Codes ?? ImmutableSortedDictionary<string, string>.Empty);

    public static SaidCoding Of(CodedByHandRecord said) => new([.. said.Shares.Select(Of)]);

    public static CodedLine Of(CodedLineRecord line) => new(line.Line, [.. line.Parts.Select(part => new CodedPart(
        Number(part.Amount), Number(part.Part), part.Codes.ToImmutableSortedDictionary(code => code.Key, code => new Code(code.Value.Value, code.Value.From), StringComparer.Ordinal)))]);

    public static CodedLineRecord Of(CodedLine line) => new(line.Line, [.. line.Parts.Select(part => new CodedPartRecord(
        Text(part.Amount), Text(part.Part), part.Codes.ToImmutableSortedDictionary(code => code.Key, code => new CodeRecord(code.Value.Value, code.Value.From), StringComparer.Ordinal)))]);

    /// <summary>What the history says of a coding.</summary>
    public static string Told(CorrectionToMake wanted) => wanted.Shares is { } shares
        ? shares.IsEmpty ? "as the rules say" : new SaidCoding([.. shares.Select(Of)]).Says
        : string.Join(", ", wanted.Cells!.Select(code => $"{TradeNames.Spoken(code.Key)} {(code.Value.Trim().Length == 0 ? "as the rules say" : code.Value.Trim())}"));

    private static decimal Number(string text) => decimal.Parse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
