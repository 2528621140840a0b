namespace Daxlin.Service.Storage;

public enum RehearsalState
{
    Running,
    Done,
    Stopped,
    Failed,
}
