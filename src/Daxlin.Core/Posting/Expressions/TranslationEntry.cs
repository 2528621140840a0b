namespace Daxlin.Core.Posting.Expressions;

/// <summary>One word and what it is called.</summary>
/// <param name="From">The first day that it counts on; <see cref="DateOnly.MinValue"/> for always.</param>
public sealed record TranslationEntry(string Word, string Meaning, DateOnly From);
