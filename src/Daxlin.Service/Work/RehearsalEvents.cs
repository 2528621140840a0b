using Daxlin.Service.Nodes;

namespace Daxlin.Service.Work;

/// <summary>Tells who is listening that a rehearsal has moved on.</summary>
public sealed class RehearsalEvents(NodeMessages messages) : ProgressEvents(messages, "rehearsal");
