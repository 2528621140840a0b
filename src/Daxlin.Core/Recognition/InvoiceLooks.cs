using System.Buffers.Binary;
using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Recognition;

/// <summary>What an invoice looks like, whoever it is from: the words without figures on its first page, each with where it begins from the left, and its rulings.</summary>
/// <remarks>
/// Captions, headings and names stay at their place on each invoice of a vendor, but for their height, which moves with the rows; what
/// an invoice is about changes. "Total" stands on everybody's invoices, but hardly at 412 points from the left. Kept are the smallest
/// of the hashes only, by which likeness is estimated (bottom-k sketch: Cohen and Kaplan, 2007), so that a hundred thousand invoices have room.
/// </remarks>
public sealed class InvoiceLooks
{
    /// <summary>So many hashes are kept; a page with fewer words is compared exactly.</summary>
    private const int Most = 128;

    /// <summary>
    /// Invoices that are alike by this much look like one vendor's. Those of different vendors were alike by at most 0.13 in all families
    /// at hand, each one to the likest of its own vendor by at least 0.19; <c>InvoiceLooksTests</c> sorts them all by it.
    /// </summary>
    public const double OneVendors = 0.16;

    /// <summary>In points: places that differ by less are one.</summary>
    private const double Fine = 2;

    /// <summary>In rising order, each once.</summary>
    private readonly ImmutableArray<uint> hashes;

    private InvoiceLooks(ImmutableArray<uint> hashes) => this.hashes = hashes;

    /// <summary>The looks of an invoice without words, which is like no other.</summary>
    public static InvoiceLooks None { get; } = new([]);

    /// <param name="pages">Those of one invoice.</param>
    public static InvoiceLooks Of(ImmutableArray<Page> pages)
    {
        if (pages is not [var first, ..])
            return None;
        var found = new SortedSet<uint>();
        foreach (var word in first.Words)
        {
            if (word.Text.Length > 1 && !word.Text.Any(char.IsDigit))
                found.Add(Hash(word.Text, word.Box.Left, 0));
        }
        foreach (var stroke in first.Strokes)
            found.Add(stroke.IsUpright ? Hash("|", stroke.Box.Left, 0) : Hash("-", stroke.Box.Left, stroke.Box.Width));
        return new([.. found.Take(Most)]);
    }

    /// <summary>As it was kept.</summary>
    /// <param name="bytes">Of <see cref="ToBytes"/>.</param>
    public static InvoiceLooks Of(ReadOnlySpan<byte> bytes)
    {
        var hashes = new uint[bytes.Length / sizeof(uint)];
        for (var index = 0; index < hashes.Length; index++)
            hashes[index] = BinaryPrimitives.ReadUInt32LittleEndian(bytes[(index * sizeof(uint))..]);
        return new([.. hashes]);
    }

    /// <summary>To be kept: four bytes a hash, the smallest byte first.</summary>
    public byte[] ToBytes()
    {
        var bytes = new byte[hashes.Length * sizeof(uint)];
        for (var index = 0; index < hashes.Length; index++)
            BinaryPrimitives.WriteUInt32LittleEndian(bytes.AsSpan(index * sizeof(uint)), hashes[index]);
        return bytes;
    }

    /// <summary>How much of what either has both have, from 0 to 1 (Jaccard's index).</summary>
    public double LikenessTo(InvoiceLooks other)
    {
        var (alike, all, mine, theirs) = (0, 0, 0, 0);
        while (all < Most && (mine < hashes.Length || theirs < other.hashes.Length))
        {
            var order = mine == hashes.Length ? 1 : theirs == other.hashes.Length ? -1 : hashes[mine].CompareTo(other.hashes[theirs]);
            alike += order == 0 ? 1 : 0;
            mine += order <= 0 ? 1 : 0;
            theirs += order >= 0 ? 1 : 0;
            all++;
        }
        return all == 0 ? 0 : (double)alike / all;
    }

    /// <summary>FNV-1a of a text and where it stands: the same in every process, as what is kept must be.</summary>
    private static uint Hash(string text, double left, double width)
    {
        var hash = 2166136261u;
        foreach (var letter in text)
            hash = (hash ^ letter) * 16777619u;
        hash = (hash ^ (uint)(int)Math.Round(left / Fine)) * 16777619u;
        return (hash ^ (uint)(int)Math.Round(width / Fine)) * 16777619u;
    }
}
