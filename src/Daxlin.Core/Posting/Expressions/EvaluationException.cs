namespace Daxlin.Core.Posting.Expressions;

/// <summary>An expression comes to nothing that can be written for one record: a division by nothing, more digits than are kept.</summary>
public sealed class EvaluationException(string message) : Exception(message);
