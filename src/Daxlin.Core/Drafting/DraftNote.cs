namespace Daxlin.Core.Drafting;

/// <summary>What is known of one part of a drafted template, for the person who publishes it.</summary>
/// <param name="Key">The part: <c>fields.total</c>, <c>columns.quantity</c>, <c>reads.decimal</c>.</param>
/// <param name="Says">Where it was found and what speaks for it, in a sentence's end: “beside “Total due”; the parts add up to it”.</param>
public sealed record DraftNote(string Key, Certainty Certainty, string Says);
