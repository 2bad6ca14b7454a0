import { Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { Big, Line } from "./Big";

const LONGEST = 1600;
const LARGEST_BYTES = 50_000_000;
const INK = "#e03a1c";

type Point = readonly [number, number];
type Arrow = readonly [Point, Point];

/** Take a picture or choose one, draw arrows on it with a finger, say what it shows. Only its pixels leave the phone. */
export function Photo({ keep }: { keep: (picture: Blob, text: string) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [image, setImage] = useState<ImageBitmap | null>(null);
  const [arrows, setArrows] = useState<readonly Arrow[]>([]);
  const [drawn, setDrawn] = useState<Arrow | null>(null);
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    if (image && canvas.current) paintOn(canvas.current, image, drawn ? [...arrows, drawn] : arrows);
  }, [image, arrows, drawn]);
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setTrouble("");
    if (file.size > LARGEST_BYTES) {
      setTrouble(`This file has ${Math.round(file.size / 1e6)} MB: take a picture of at most 50 MB.`);
      return;
    }
    try {
      setImage(await createImageBitmap(file, { imageOrientation: "from-image" }));
      setArrows([]);
    } catch {
      setTrouble(`'${file.name}' is no picture that can be read here. Nothing was changed.`);
    }
  };
  const at = (e: React.PointerEvent<HTMLCanvasElement>): Point => {
    const box = e.currentTarget.getBoundingClientRect();
    const per = e.currentTarget.width / box.width;
    return [(e.clientX - box.left) * per, (e.clientY - box.top) * per];
  };
  const end = () => {
    if (drawn && Math.hypot(drawn[1][0] - drawn[0][0], drawn[1][1] - drawn[0][1]) > 30) setArrows([...arrows, drawn]);
    setDrawn(null);
  };
  const done = () =>
    canvas.current?.toBlob(
      (blob) => (blob ? keep(blob, text.trim()) : setTrouble("It could not be kept.")),
      "image/jpeg",
      0.86,
    );
  return (
    <Flex direction="column" gap="3">
      <label className="floor-file">
        {image ? "Another picture" : "Camera or file"}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          onChange={(e) => void choose(e.target.files?.[0])}
          aria-label="Camera or file"
        />
      </label>
      <Text role="alert" color="removed" fontSize="20px">
        {trouble}
      </Text>
      {image && (
        <>
          <Text fontSize="20px">Draw an arrow with a finger, if it helps.</Text>
          <canvas
            ref={canvas}
            aria-label="The picture, to draw arrows on"
            style={{ width: "100%", touchAction: "none" }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              setDrawn([at(e), at(e)]);
            }}
            onPointerMove={(e) => drawn && setDrawn([drawn[0], at(e)])}
            onPointerUp={end}
            onPointerCancel={end}
          />
          {arrows.length > 0 && <Big onClick={() => setArrows(arrows.slice(0, -1))}>Last arrow off</Big>}
          <Line label="What it shows" value={text} take={setText} />
          <Big kind="main" onClick={done}>
            Keep the picture
          </Big>
        </>
      )}
    </Flex>
  );
}

function paintOn(canvas: HTMLCanvasElement, image: ImageBitmap, arrows: readonly Arrow[]): void {
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
  canvas.width = Math.round(image.width * scale);
  canvas.height = Math.round(image.height * scale);
  const pen = canvas.getContext("2d");
  if (!pen) return;
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  const wide = Math.max(6, canvas.width / 110);
  for (const [[x0, y0], [x1, y1]] of arrows) {
    const turn = Math.atan2(y1 - y0, x1 - x0);
    const head = wide * 5;
    for (const [colour, more] of [
      ["#ffffff", wide * 0.8],
      [INK, 0],
    ] as const) {
      pen.strokeStyle = colour;
      pen.lineWidth = wide + more;
      pen.lineCap = "round";
      pen.beginPath();
      pen.moveTo(x0, y0);
      pen.lineTo(x1, y1);
      for (const side of [-0.5, 0.5]) {
        pen.moveTo(x1, y1);
        pen.lineTo(x1 - head * Math.cos(turn + side), y1 - head * Math.sin(turn + side));
      }
      pen.stroke();
    }
  }
}
