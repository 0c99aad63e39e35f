import Icon, {
  ArrowDownOutlined,
  ArrowUpOutlined,
  CameraOutlined,
  CaretRightOutlined,
  CopyOutlined,
  DeleteOutlined,
  DownloadOutlined,
  EditOutlined,
  FilePdfOutlined,
  FolderOpenOutlined,
  HistoryOutlined,
  LeftOutlined,
  LogoutOutlined,
  MessageOutlined,
  PlusOutlined,
  PrinterOutlined,
  RedoOutlined,
  ReloadOutlined,
  RightOutlined,
  ScanOutlined,
  UndoOutlined,
  ZoomInOutlined,
  ZoomOutOutlined,
} from '@ant-design/icons';

/** A filled square, which the package of signs lacks: one that is empty would be a box to tick. */
const Square = () => (
  <svg viewBox="0 0 1024 1024" width="1em" height="1em" fill="currentColor">
    <path d="M208 208h608v608H208z" />
  </svg>
);

/** The customary sign of an act, beside its word: the word alone is read aloud. */
export const signs = {
  add: <PlusOutlined aria-hidden />,
  again: <ReloadOutlined aria-hidden />,
  change: <EditOutlined aria-hidden />,
  copy: <CopyOutlined aria-hidden />,
  down: <ArrowDownOutlined aria-hidden />,
  file: <FolderOpenOutlined aria-hidden />,
  history: <HistoryOutlined aria-hidden />,
  next: <RightOutlined aria-hidden />,
  notes: <MessageOutlined aria-hidden />,
  paper: <FilePdfOutlined aria-hidden />,
  picture: <CameraOutlined aria-hidden />,
  previous: <LeftOutlined aria-hidden />,
  print: <PrinterOutlined aria-hidden />,
  remove: <DeleteOutlined aria-hidden />,
  restore: <RedoOutlined aria-hidden />,
  save: <DownloadOutlined aria-hidden />,
  scan: <ScanOutlined aria-hidden />,
  signOut: <LogoutOutlined aria-hidden />,
  start: <CaretRightOutlined aria-hidden />,
  stop: <Icon component={Square} aria-hidden />,
  undo: <UndoOutlined aria-hidden />,
  up: <ArrowUpOutlined aria-hidden />,
  zoomIn: <ZoomInOutlined aria-hidden />,
  zoomOut: <ZoomOutOutlined aria-hidden />,
} as const;
